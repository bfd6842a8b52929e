import loadHighs from 'highs';
import { parentPort } from 'node:worker_threads';
import type { LinearModel } from '@sombra/core';
import { runModel, type Solved } from './run-model';

export interface SolveTask {
  readonly model: LinearModel;
  readonly limitS: number;
}

/** Runs in a worker thread: the solver is one long call, and must not hold up the server. */
export default async function solve({ model, limitS }: SolveTask): Promise<Solved> {
  const highs = await loadHighs();
  return runModel(highs, model, { limitS, onGap: (gap) => parentPort?.postMessage({ gap }) });
}
