import { defaultLabourRules, type LabourRules } from './labour';
import { defaultSoilTestRules, materialCodes, materials, type MaterialCode, type SoilTestRules } from './materials';
import { defaultWindRules, type WindRules } from './stake-plan';

/** What a place and its people decide, whatever the practice: how fast work goes, gusts, soil tests, what shops sell. */
export interface WorkRules {
  readonly labour: LabourRules;
  readonly wind: WindRules;
  readonly soilTest: SoilTestRules;
  /** How much one pack of each material holds, in the material's unit. */
  readonly packs: Readonly<Record<MaterialCode, number>>;
}

export const defaultWorkRules: WorkRules = {
  labour: defaultLabourRules,
  wind: defaultWindRules,
  soilTest: defaultSoilTestRules,
  packs: Object.fromEntries(materialCodes.map((code) => [code, materials[code].pack.size])) as Record<
    MaterialCode,
    number
  >,
};
