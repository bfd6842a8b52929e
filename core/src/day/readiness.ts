import type { DigCover } from '../ground';
import { worstLevel, type Level } from '../reason';
import { because, type DayReason } from './reasons';
import type { WeatherAdvice } from './weather-watch';

/** What has to be right before people stand at the kerb, in the order it is looked at. */
export const readinessTopics = [
  'cover',
  'leave',
  'stock',
  'plans',
  'people',
  'teams',
  'tools',
  'materials',
  'cards',
  'arrangements',
  'weather',
] as const;
export type ReadinessTopic = (typeof readinessTopics)[number];

/** A spot of the day as its readiness sees it. */
export interface ReadySpot {
  readonly ref: string;
  /** On the day itself. */
  readonly cover: DigCover['kind'];
  /** An owner who has not consented, a road permit that is not there on the day. */
  readonly leaveMissing: boolean;
  readonly stock: 'accepted' | 'not_here' | 'refused' | 'unmeasured';
  /** Days since a tree that waits in store was watered, or came; `null` where it does not wait there. */
  readonly heldDryDays: number | null;
  /** How often the nursery watered it; `null` where nobody asked. Days. */
  readonly wateredEveryDays: number | null;
  readonly planned: boolean;
  readonly planted: boolean;
  /** The plan is another one than the card that was printed. */
  readonly cardChanged: boolean;
  readonly carded: boolean;
}

export interface ReadinessFacts {
  readonly spots: readonly ReadySpot[];
  readonly people: {
    readonly capacity: number;
    readonly confirmed: number;
    readonly withoutWaiver: number;
    readonly leads: number;
    /** Needed for the work in the time there is. */
    readonly needed: number;
    readonly leadsNeeded: number;
  };
  readonly teams: { readonly teams: number; readonly spotsLeft: number; readonly peopleLeft: number };
  readonly tools: readonly { readonly name: string; readonly needed: number; readonly there: number }[];
  readonly materials: readonly { readonly name: string; readonly missing: string }[];
  readonly arrangementsMissing: readonly string[];
  readonly weather: WeatherAdvice;
}

export interface ReadinessLine {
  readonly topic: ReadinessTopic;
  /** `urgent` is a red line: nobody plants past it. */
  readonly level: Level;
  readonly because: readonly DayReason[];
  /** Numbers of the spots it is about. */
  readonly refs: readonly string[];
}

export interface Readiness {
  readonly level: Level;
  readonly lines: readonly ReadinessLine[];
}

/**
 * Whether a day may be held as it stands, red lines first. Leave to dig, leave to plant, a tree to plant and somebody
 * who leads are red: no wish moves them. What a kind of day has no part in is not asked; tools, materials, cards and arrangements want an act before the day.
 */
export function judgeReadiness(facts: ReadinessFacts, topics: readonly ReadinessTopic[] = readinessTopics): Readiness {
  const lines = topics.map((topic) => ({ topic, ...judges[topic](facts) }));
  const order: readonly Level[] = ['urgent', 'act', 'watch', 'good'];
  const sorted = [...lines].sort((a, b) => order.indexOf(a.level) - order.indexOf(b.level));
  return { level: worstLevel(lines.map(({ level }) => level)), lines: sorted };
}

/** A ball out of the ground dries in a few days where nobody says how its nursery watered. An estimate. */
const usuallyWateredDays = 3;

/** Held for twice as long as it was used to without water: whether it lives is to be looked at before the day. */
const isThirsty = ({ heldDryDays, wateredEveryDays }: ReadySpot): boolean =>
  heldDryDays !== null && heldDryDays > 2 * (wateredEveryDays ?? usuallyWateredDays);

type Judged = Omit<ReadinessLine, 'topic'>;
const open = ({ spots }: ReadinessFacts): readonly ReadySpot[] => spots.filter(({ planted }) => !planted);

function bySpots(
  facts: ReadinessFacts,
  isWrong: (spot: ReadySpot) => boolean,
  wrong: (count: number) => { level: Level; why: DayReason },
  right: DayReason,
): Judged {
  const refs = open(facts)
    .filter(isWrong)
    .map(({ ref }) => ref);
  if (refs.length === 0) return { level: 'good', because: [right], refs };
  const { level, why } = wrong(refs.length);
  return { level, because: [why], refs };
}

const judges: Readonly<Record<ReadinessTopic, (facts: ReadinessFacts) => Judged>> = {
  cover: (facts) => {
    const spots = open(facts).length;
    if (spots === 0) return { level: 'urgent', because: [because('ready_no_spots', {})], refs: [] };
    return bySpots(
      facts,
      ({ cover }) => cover === 'none',
      (count) => ({ level: 'urgent', why: because('ready_uncovered', { count, spots }) }),
      because('ready_covered', { spots }),
    );
  },
  leave: (facts) =>
    bySpots(
      facts,
      ({ leaveMissing }) => leaveMissing,
      (count) => ({ level: 'urgent', why: because('ready_leave_missing', { count }) }),
      because('ready_leave', {}),
    ),
  stock: (facts) => {
    const wrong = open(facts).filter(({ stock }) => stock !== 'accepted');
    const count = (kind: ReadySpot['stock']) => wrong.filter(({ stock }) => stock === kind).length;
    const because_ =
      wrong.length === 0
        ? because('ready_stock', { trees: open(facts).length })
        : because('ready_stock_missing', {
            notHere: count('not_here'),
            refused: count('refused'),
            unmeasured: count('unmeasured'),
          });
    // A tree that only nobody measured yet is at hand; one that is not here cannot be planted.
    const red = wrong.some(({ stock }) => stock !== 'unmeasured');
    const thirsty = open(facts).filter(isThirsty);
    const days = Math.max(0, ...thirsty.map(({ heldDryDays }) => heldDryDays ?? 0));
    const dry = thirsty.length > 0 ? [because('ready_stock_thirsty', { count: thirsty.length, days })] : [];
    const level = wrong.length === 0 ? (dry.length > 0 ? 'act' : 'good') : red ? 'urgent' : 'act';
    return { level, because: [because_, ...dry], refs: [...wrong, ...thirsty].map(({ ref }) => ref) };
  },
  plans: (facts) =>
    bySpots(
      facts,
      ({ planned }) => !planned,
      (count) => ({ level: 'act', why: because('ready_no_plan', { count }) }),
      because('ready_plans', {}),
    ),
  people: ({ people }) => {
    const { confirmed, capacity, needed, leads, leadsNeeded, withoutWaiver } = people;
    const why: DayReason[] = [because('ready_people', { confirmed, capacity, needed })];
    if (leads < leadsNeeded) why.push(because('ready_leads_short', { leads, needed: leadsNeeded }));
    if (withoutWaiver > 0) why.push(because('ready_waivers', { count: withoutWaiver }));
    const level =
      leads === 0 ? 'urgent' : leads < leadsNeeded || confirmed < needed ? 'act' : withoutWaiver > 0 ? 'watch' : 'good';
    return { level, because: why, refs: [] };
  },
  teams: ({ teams: { teams, spotsLeft, peopleLeft } }) => {
    if (teams === 0) return { level: 'act', because: [because('ready_no_teams', {})], refs: [] };
    const level = spotsLeft > 0 || peopleLeft > 0 ? 'act' : 'good';
    return { level, because: [because('ready_teams', { teams, spotsLeft, peopleLeft })], refs: [] };
  },
  tools: ({ tools }) => {
    const short = tools.filter(({ needed, there }) => there < needed);
    if (short.length === 0)
      return { level: 'good', because: [because('ready_tools', { kinds: tools.length })], refs: [] };
    const what = short.map(({ name, needed, there }) => `${name} ${there} of ${needed}`).join(', ');
    return { level: 'act', because: [because('ready_tools_short', { what })], refs: [] };
  },
  materials: ({ materials }) => {
    if (materials.length === 0) return { level: 'good', because: [because('ready_materials', {})], refs: [] };
    const what = materials.map(({ name, missing }) => `${name} ${missing}`).join(', ');
    return { level: 'act', because: [because('ready_materials_short', { what })], refs: [] };
  },
  cards: (facts) => {
    const changed = open(facts).filter(({ cardChanged }) => cardChanged);
    const none = open(facts).filter(({ carded }) => !carded);
    const why = because('ready_cards', { changed: changed.length, none: none.length });
    const level = changed.length > 0 ? 'act' : none.length > 0 ? 'watch' : 'good';
    return { level, because: [why], refs: [...changed, ...none].map(({ ref }) => ref) };
  },
  arrangements: ({ arrangementsMissing }) =>
    arrangementsMissing.length === 0
      ? { level: 'good', because: [because('ready_arrangements', {})], refs: [] }
      : {
          level: 'act',
          because: [because('ready_arrangements_missing', { what: arrangementsMissing.join(', ') })],
          refs: [],
        },
  weather: ({ weather }) => {
    const levels = { go: 'good', delay: 'act', call_off: 'urgent', unknown: 'watch' } as const;
    return { level: levels[weather], because: [because('ready_weather', { advice: weather })], refs: [] };
  },
};
