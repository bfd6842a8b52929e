import { formatNumber, formatQuantity } from '../units';
import { sectionFrame, type PitSectionInput } from './section-frame';
import { gutterFor, labels, leastHeightPx, mixedInFill } from './section-labels';
import { dressing, earth, flareLine, tree } from './section-parts';
import { stakesUp } from './section-stakes';
import type { Drawing } from './shapes';

export type { PitSectionInput } from './section-frame';

/**
 * Section through the pit to one scale both ways, uphill on the left; along the strip where the pit is stretched.
 * Stakes stand left and right whatever their bearing (the view from above shows that), broken above the ball. Labels
 * stand in their own gutters, so that none can cover the drawing or another label.
 */
export function pitSection(input: PitSectionInput): Drawing {
  const frame = sectionFrame(input, gutterFor(input), leastHeightPx(input));
  const shapes = [
    ...earth(input, frame),
    ...stakesUp(input, frame),
    ...tree(input, frame),
    ...dressing(input, frame),
    flareLine(input, frame),
    ...labels(input, frame),
  ];
  return { widthPx: input.widthPx, heightPx: frame.heightPx, shapes, description: describe(input) };
}

function describe({ plan, stakes, units }: PitSectionInput): string {
  const mm = (value: number) => formatQuantity(value, 'lengthMm', units);
  const mixed = mixedInFill(plan).map(({ name, sharePct }) => `${formatNumber(sharePct, 0)} % of the fill ${name}`);
  const fill = mixed.length > 0 ? mixed.join(', ') : 'filled with site soil';
  return (
    `Section of the pit: ${mm(plan.depthMm.value)} deep at the uphill edge, ${mm(plan.widthMm.value)} wide, ` +
    `flare ${mm(plan.proudMm.value)} above grade, ${mm(plan.downhillProudMm.value)} at the downhill edge, ${fill}` +
    `${stakes ? `, ${stakes.stakes === 1 ? '1 stake' : `${stakes.stakes} stakes`}, tie at ${mm(stakes.heightMm)}` : ''}.`
  );
}
