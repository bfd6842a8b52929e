import type { LinearModel } from '@sombra/core';
import type { Highs } from 'highs';

export interface Solved {
  readonly kind: 'solved' | 'infeasible' | 'unsolved';
  readonly values: readonly number[];
  /** Distance of the objective from its proven bound, as a share; `null` where none was proven. */
  readonly gap: number | null;
}

/** Solves a linear model with HiGHS, to proof or to the time limit. */
export function runModel(
  highs: Highs,
  model: LinearModel,
  options: { limitS: number; onGap?: (gap: number | null) => void },
): Solved {
  const { constants } = highs;
  const finite = (value: number) =>
    value === Infinity ? highs.infinity : value === -Infinity ? -highs.infinity : value;
  return highs.withModel(
    {
      numCols: model.cost.length,
      numRows: model.rowLower.length,
      sense: model.maximise ? constants.objectiveSense.maximize : constants.objectiveSense.minimize,
      colCost: Float64Array.from(model.cost),
      colLower: new Float64Array(model.cost.length),
      colUpper: Float64Array.from(model.colUpper, finite),
      rowLower: Float64Array.from(model.rowLower, finite),
      rowUpper: Float64Array.from(model.rowUpper, finite),
      integrality: model.integer.map((whole) =>
        whole ? constants.variableType.integer : constants.variableType.continuous,
      ),
      matrix: {
        format: 'csr',
        numRows: model.rowLower.length,
        numCols: model.cost.length,
        starts: Int32Array.from(model.starts),
        indices: Int32Array.from(model.indices),
        values: Float64Array.from(model.values),
      },
    },
    (solver): Solved => {
      solver.options.set({ output_flag: false, time_limit: options.limitS, mip_rel_gap: 1e-6 });
      solver.run({
        [constants.callbackType.mipLogging]: (event) => {
          options.onGap?.(finiteOrNull(event.data.mip_gap));
          return undefined;
        },
      });
      const status = solver.getModelStatus();
      if (status === constants.modelStatus.infeasible || status === constants.modelStatus.unboundedOrInfeasible) {
        return { kind: 'infeasible', values: [], gap: null };
      }
      const gap = finiteOrNull(Number(solver.info.get('mip_gap')));
      const found = Number(solver.info.get('primal_solution_status')) === 2;
      if (!found) return { kind: 'unsolved', values: [], gap };
      return { kind: 'solved', values: [...solver.getSolution().colValue], gap };
    },
  );
}

const finiteOrNull = (value: number | undefined): number | null =>
  value === undefined || !Number.isFinite(value) || value > 1e10 ? null : Math.max(0, value);
