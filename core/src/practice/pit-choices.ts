import { number, option, type Choice, type ChoiceGroup } from './choice';
import {
  allowanceRules,
  feedPlaceCodes,
  feedPlaces,
  fertilisers,
  fillMaterials,
  fillPlaces,
  gypsumUses,
  levelRules,
  pitBases,
  pitSides,
  settlings,
  shoulders,
  stoneUses,
} from './pit-options';

/** One of the things that may be mixed in; the second and third stand under a path of their own. */
const mixedIn = (path: string, name: string): readonly Choice[] => {
  const idleWhile = { path: `${path}.material`, value: 'site_soil' };
  const material = option(
    `${path}.material`,
    name,
    fillMaterials,
    'Most trials find no gain in ordinary soil, some in rubble or sterile fill.',
  );
  const of = [
    number(
      `${path}.share`,
      `${name}: share`,
      [0, 0.6, 'share'],
      'A third: gardeners with compost. Half: bark fines in clay.',
      'Above a third the fill settles as it rots.',
    ),
    number(
      `${path}.bags`,
      `${name}: or bags a tree`,
      [0, 20, 'bags'],
      'Crews who carry bags, not shares; where there are some, they count instead of the share.',
      'The same bag is much in a small hole and little in a large one.',
    ),
    option(
      `${path}.place`,
      `${name}: where it goes`,
      fillPlaces,
      'Amending the area shows gains where amending the hole does not; layers hold water up.',
    ),
  ];
  return [material, ...of.map((one) => ({ ...one, idleWhile }))];
};

/** The hole, its fill and how high the flare stands. */
export const pitChoices: readonly ChoiceGroup[] = [
  {
    name: 'Drainage of the ground',
    choices: [
      number(
        'percolation.slowFromMmPerH',
        'Water stands under',
        [0, 50, 'mm/h'],
        'Whoever tests percolation: under this the place is drained, changed or left.',
        'Fine roots of most species die within days of standing water in growth.',
      ),
      number(
        'percolation.goodFromMmPerH',
        'it drains slowly under',
        [1, 200, 'mm/h'],
        'Most guides: an inch an hour is the least a usual tree is planted in without a change.',
        'Growth falls off below some ten to thirty millimetres an hour; the line is drawn by custom.',
      ),
      number(
        'percolation.fastOverMmPerH',
        'it drains fast over',
        [10, 2000, 'mm/h'],
        'Planters in sand and rubble: such ground does not hold a dose.',
        'Coarse soil stores a third of what loam does; more visits help, larger doses do not.',
      ),
    ],
  },
  {
    name: 'Flare above grade',
    choices: [
      number(
        'flareAboveGrade.baseMm',
        'Flare above grade',
        [0, 150, 'mm'],
        'Level: gardeners, for looks. 25–50 mm: most programmes, since fill settles. 75 mm on a mound: planters in hot clay.',
        'Trees set too deep die sooner and girdle more; standing high only dries, which mulch and water mend.',
      ),
      number(
        'flareAboveGrade.ballShare',
        'and as a share of the ball’s height',
        [0, 0.3, 'share'],
        'Growers who plant balls of very different size: a twentieth in free soil.',
        'No trial compares shares with fixed heights; big balls sink more.',
      ),
      number(
        'flareAboveGrade.ballShareHeavy',
        'that share in heavy, rocky or slow soil',
        [0, 0.3, 'share'],
        'The same growers: up to a fifth where soil is tight.',
        'Roots near the surface of tight soil find air; deeper ones do not.',
      ),
      number(
        'flareAboveGrade.heavySoilExtraMm',
        'more in clay',
        [0, 150, 'mm'],
        'Most who plant in clay; level planters give nothing.',
        'Heavy soil holds water at the collar and settles under wet balls.',
      ),
      number(
        'flareAboveGrade.stonyExtraMm',
        'more in stony soil',
        [0, 150, 'mm'],
        'Crews in rubble and fill: stones leave voids that close later.',
        'Little published; measured drops decide.',
      ),
      number(
        'flareAboveGrade.slowSoilExtraMm',
        'more where water drains slowly',
        [0, 150, 'mm'],
        'Whoever tests percolation before planting.',
        'Standing water kills fine roots within days of growth.',
      ),
      option(
        'flareAboveGrade.allowances',
        'What soil and drainage ask for',
        allowanceRules,
        'Not tried; clay and slow drainage mostly come together.',
      ),
      number(
        'flareAboveGrade.settlementFirmed',
        'firmed fill under the ball settles by',
        [0, 0.5, 'share'],
        'Foundation practice, and the programme’s own measured drops.',
        'Firmed soil loses about a tenth of its thickness, more when wet.',
      ),
      number(
        'flareAboveGrade.settlementLoose',
        'loose fill under the ball settles by',
        [0, 0.6, 'share'],
        'Foundation practice, and the programme’s own measured drops.',
        'Loose soil loses a quarter and more in the first rains.',
      ),
      option(
        'flareAboveGrade.shoulder',
        'Soil beside the ball that stands proud',
        shoulders,
        'Sides left bare dry first; mounds in tight soil keep the upper roots in air.',
      ),
      option(
        'flareAboveGrade.measuredFrom',
        'What stands at that height',
        levelRules,
        'Container stock is often 50–150 mm too deep in its ball; what is planted by the surface is buried by as much.',
      ),
      number(
        'flareAboveGrade.surfaceMostMm',
        'by the container’s surface only with the flare under it by at most',
        [0, 50, 'mm'],
        'Growers: a finger’s breadth is dust of the nursery.',
        'Deeper flares come with girdling roots.',
      ),
      number(
        'flareAboveGrade.graftLeastMm',
        'a graft stands above grade by at least',
        [0, 300, 'mm'],
        'Fruit and ornamental growers.',
        'A buried graft roots from the scion, and what the stock was chosen for is lost.',
      ),
      number(
        'flareAboveGrade.laterExtraMm',
        'more where surplus soil comes off later',
        [0, 100, 'mm'],
        'Inspectors who come back to clear the flare.',
        'Little published: it spares digging a bowl that fills again.',
      ),
    ],
  },
  {
    name: 'Pit',
    choices: [
      number(
        'pitWidth.ballFactor',
        'Width, times the ball',
        [1, 6, '×'],
        '1.5: hand-diggers in clay. 2: crews paid by the tree, and whoever saw trees lean in wide loose pits. 2–3: most guides.',
        'Roots live in the top 300 mm and must get out; gains flatten beyond three times the ball, and loose fill holds a tree less than the ground did.',
      ),
      number(
        'pitWidth.ballFactorCompacted',
        'width in compacted ground',
        [1, 6, '×'],
        'Street programmes dig wider there; many dig the same everywhere.',
        'Loosened width helps most where soil is compacted.',
      ),
      number(
        'pitWidth.bareRootMarginMm',
        'bare-root: wider than the spread by',
        [0, 1000, 'mm'],
        'Bare-root planters: room to lay roots out straight.',
        'Roots bent to fit a hole keep the bend.',
      ),
      number(
        'pitWidth.baseMarginMm',
        'base wider than the ball by',
        [0, 1000, 'mm'],
        'Crews who must reach down beside the ball.',
        'No trial: a matter of hands and tools.',
      ),
      option('pitWidth.sides', 'Sides', pitSides, 'Glazed sides turn roots back; rough ones let them through.'),
      option(
        'pitWidth.base',
        'Base',
        pitBases,
        'Loose soil under a ball sinks it by a tenth to a quarter; drains through a pan work only where the soil below is free.',
      ),
      number(
        'leastDownhillDepthMm',
        'Least depth at the downhill edge',
        [0, 400, 'mm'],
        'Hillside crews: less asks for a terrace or a smaller ball.',
        'Shallow edges dry and wash out.',
      ),
    ],
  },
  {
    name: 'Fill',
    choices: [
      ...mixedIn('backfill', 'Mixed in'),
      ...mixedIn('backfill.second', 'Second mixed in'),
      ...mixedIn('backfill.third', 'Third mixed in'),
      number(
        'backfill.areaDepthMm',
        'a whole area is amended to',
        [50, 600, 'mm'],
        '200: a spade’s depth. 300: bed makers with a machine.',
        'Roots of trees live mostly in the top 300 mm.',
      ),
      option('backfill.settling', 'Settled by', settlings, 'Air gaps dry roots, compaction shuts air out.'),
      option('backfill.stones', 'Stones', stoneUses, 'Stones below a third of the fill do no harm; voids do.'),
      ...feedPlaceCodes.map((place) =>
        option(
          `backfill.feeds.${place}`,
          `Fed ${feedPlaces[place].name}`,
          fertilisers,
          'Little evidence of gain; salts burn; label and licence.',
        ),
      ),
      option('backfill.gypsum', 'Gypsum', gypsumUses, 'Exchanges sodium, and only where the soil is sodic.'),
      number(
        'backfill.spoilBulking',
        'dug soil grows to',
        [1, 2, '×'],
        'Hauliers: 1.1 in sand to 1.4 in clay.',
        'Earthwork tables: loam bulks by about a quarter.',
      ),
    ],
  },
];
