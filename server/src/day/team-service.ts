import { keptDayOf, type SeekProgress } from '@sombra/contract';
import { teamTaskOf, type TeamPlan } from '@sombra/core';
import type { Knex } from 'knex';
import { randomUUID } from 'node:crypto';
import { directWorker, pooledWorker, type Worker } from '../platform/worker-pool';
import { dayDetail } from './detail-service';
import { seekFor, type SeekTask } from './seek-worker';

export type TeamSeeker = Worker<SeekTask, TeamPlan>;

/** Seeks in worker threads beside the server; stopping a search ends its thread. */
export const pooledSeeker = (): TeamSeeker => pooledWorker('day/seek-worker');

/** For tests and small programmes: seeks at once, in the server's own thread. */
export const directSeeker = (): TeamSeeker => directWorker(seekFor);

const triesOf = { small: 60_000, large: 160_000 } as const;

/** Seeks teams for a day as it stands now; nothing is kept. */
export async function seekForDay(
  db: Knex,
  seeker: TeamSeeker,
  asked: { readonly dayId: string; readonly seed: number; readonly keepLocked: boolean },
  run: { readonly signal: AbortSignal; readonly onProgress: (progress: SeekProgress) => void },
): Promise<void> {
  const detail = await dayDetail(db, asked.dayId);
  const task = teamTaskOf(keptDayOf(detail));
  const open = new Set(task.jobs.map(({ spotId }) => spotId));
  const there = new Set(task.helpers.map(({ id }) => id));
  const teams = detail.teams.map((team) => ({
    ...team,
    helperIds: team.helperIds.filter((id) => there.has(id)),
    spotIds: team.spotIds.filter((id) => open.has(id)),
  }));
  const locks = asked.keepLocked ? { teams, ...detail.locks } : null;
  const tries = task.jobs.length * task.helpers.length > 900 ? triesOf.large : triesOf.small;
  const plan = await seeker.run(
    { task, seed: asked.seed, tries, locks, askedBy: randomUUID() },
    { signal: run.signal, onProgress: (done, cost) => run.onProgress({ kind: 'running', done, cost }) },
  );
  run.onProgress({
    kind: 'found',
    teams: plan.teams.map(({ leadId, helperIds, spotIds }) => ({
      leadId,
      helperIds: [...helperIds],
      spotIds: [...spotIds],
    })),
    left: { helpers: [...plan.left.helpers], spots: [...plan.left.spots] },
  });
}
