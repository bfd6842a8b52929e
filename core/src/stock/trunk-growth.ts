/** A young street tree's trunk thickens by about this much a year: an estimate, until somebody measures it. mm */
const trunkGrowthMm = 10;

/** How thick a trunk is so many months after it was measured. mm */
export const caliperAfter = (caliperMm: number, months: number): number => caliperMm + (months / 12) * trunkGrowthMm;
