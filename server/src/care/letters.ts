import { sayBuckets } from '@sombra/core';
import { format, parseISO } from 'date-fns';

export interface CareLetter {
  readonly subject: string;
  readonly body: string;
}

interface About {
  readonly programme: string;
  readonly name: string;
  readonly ref: string;
  readonly place: string;
  readonly link: string;
}

const sayDay = (day: string): string => format(parseISO(day), 'd MMMM');
const parts = (list: readonly string[]): string => list.filter((part) => part !== '').join('\n\n');
const tree = ({ ref, place }: About): string => `tree ${ref}, ${place}`;
const stop = (link: string): string => `No more reminders: ${link}?stop`;

/** What is written to who keeps a tree. */
export const careLetters = {
  given: (about: About): CareLetter => ({
    subject: `${about.programme}: your tree ${about.ref}`,
    body: parts([
      `${about.name}, thank you for keeping ${tree(about)}.`,
      `When it wants water, how much, and how to tell: ${about.link}`,
      'The page is yours alone. Whoever has its address can tell waterings in your name.',
    ]),
  }),
  reminder: (about: About, { on, litres, bucketL }: { on: string; litres: number; bucketL: number }): CareLetter => ({
    subject: `${about.programme}: ${about.ref} wants water`,
    body: parts([
      `${about.name}, ${tree(about)} wants water on ${sayDay(on)}: ${sayBuckets(litres, bucketL)}.`,
      'Feel the soil first: push a finger in beside the trunk. Cool and damp a knuckle down, and it can wait a day or two.',
      `Tell us that you did, or ask somebody to stand in: ${about.link}`,
      'Rules on watering where you live come first.',
      stop(about.link),
    ]),
  }),
  last: (about: About): CareLetter => ({
    subject: `${about.programme}: ${about.ref} stands on its own`,
    body: parts([
      `${about.name}, thanks to you ${tree(about)} is established: it needs no more watering from you.`,
      'Keep mulch and soil off its trunk, mowers and cords away from its bark, and tell us of anything that hangs, leans or dies back.',
      'In a long drought we may write once more.',
      `Your tree: ${about.link}`,
    ]),
  }),
  deputy: (about: About, { of, from, until }: { of: string; from: string; until: string }): CareLetter => ({
    subject: `${about.programme}: will you water ${about.ref}?`,
    body: parts([
      `${about.name}, ${of} asks you to keep ${tree(about)} from ${sayDay(from)} to ${sayDay(until)}.`,
      `When it wants water, and how much: ${about.link}`,
      stop(about.link),
    ]),
  }),
  answer: (about: About, { said, answer }: { said: string; answer: string }): CareLetter => ({
    subject: `${about.programme}: about your tree ${about.ref}`,
    body: parts([`${about.name}, you wrote: “${said}”`, answer, `Your tree: ${about.link}`]),
  }),
} as const;
