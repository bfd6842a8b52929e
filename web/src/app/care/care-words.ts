import type { OpenCare } from '@sombra/contract';
import { daysBetween, sayBuckets, type IsoDate } from '@sombra/core';
import { sayDate } from '../ui/say-date';

/** What a keeper is to do, in their own buckets; `caution` where water would do harm. */
export function sayCareNext({
  next,
  today,
  bucketL,
  establishedOn,
}: Pick<OpenCare, 'next' | 'today' | 'bucketL' | 'establishedOn'>): {
  readonly head: string;
  readonly more: string;
  readonly caution: boolean;
} {
  if (establishedOn !== null) {
    return {
      head: 'It stands on its own',
      more: 'Thanks to you it is established and needs no more water. Keep mowers off its bark, and tell us of anything that hangs, leans or dies back.',
      caution: false,
    };
  }
  switch (next?.kind) {
    case 'water': {
      const dose = sayBuckets(next.litres, bucketL);
      return next.on <= today
        ? {
            head: `Water it today: ${dose}`,
            more: 'Slowly, close around the trunk, so that it sinks in.',
            caution: false,
          }
        : {
            head: `Next on ${sayDate(next.on)}: ${dose}`,
            more: 'Nothing before that, unless your finger finds it dry.',
            caution: false,
          };
    }
    case 'drowned':
      return {
        head: 'Do not water it',
        more: 'Its roots stand in water. Limp or yellow leaves come from that too. If water stands there, or a hose or sprinkler runs, tell us.',
        caution: true,
      };
    case 'never_dries':
      return {
        head: 'No water needed for now',
        more: 'It has what it needs for weeks.',
        caution: false,
      };
    default:
      return { head: 'Let your finger decide', more: 'We cannot work out its water today.', caution: false };
  }
}

/** What is usual for a tree of this age, so that nobody worries for nothing, or waits where they should not. */
export function usualFor(plantedOn: IsoDate | null, today: IsoDate): readonly string[] {
  const year = plantedOn === null ? 1 : Math.floor(daysBetween(plantedOn, today) / 365) + 1;
  const first = [
    'Small leaves, few new shoots, some dead twig tips: it is growing roots first.',
    'Leaves that come late in spring, and go early in autumn.',
    'Some limp leaves on a hot afternoon that stand again the next morning.',
    'No leaves at all in the first spring: wait until summer, then scratch a twig. Green beneath is alive.',
  ];
  const later = [
    'Longer shoots each year, and leaves of full size by the second or third summer.',
    'It still needs water in dry weeks: its roots reach little further than its crown.',
  ];
  return year === 1 ? first : later;
}

/** What is not usual, and asks for a call. */
export const unusual: readonly string[] = [
  'Leaves limp in the morning too, or brown from the edges in days.',
  'Water that stands for a day, or a smell of rot at the trunk.',
  'A tie that cuts into the bark, a broken stake, a trunk that rocks.',
  'Bark torn by a mower, a car or an animal. Mulch or soil heaped against the trunk.',
];
