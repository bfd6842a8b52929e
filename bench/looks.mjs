// npm run bench:looks [SPOTS]: what looks are worth, remedies as work, how seasons come along and a tree's cohort, in a
// region of 250 000 spots (or as many as named), each beside one pass over what it reads.
import { at, ms, times, whenStarted } from './rig.mjs';

export async function looks({ client, read }, { runs = 5 } = {}) {
  const scan = 'select count(*), min(next_look_on) from spot_period where until_day is null and planted_on is not null';
  const open = `select count(*), min(due_on) from decision where until_day is null and kind = 'do_remedy'`;
  async function beside(name, where, sql) {
    const ours = await times(runs, () => read(where));
    const raw = await times(runs, () => client.query(sql));
    const [mine, pass] = [at(ours, 0.5), at(raw, 0.5)];
    console.log(`${name}: median ${ms(mine)}; one pass ${ms(pass)}; ratio ${(mine / pass).toFixed(1)}`);
  }
  await beside('Looks by worth', '/api/looks', scan);
  await beside('Remedies in batches', '/api/remedies', open);
  await beside('Seasons coming along', '/api/establishing', scan);
  const { treeId } = (await read('/api/spots?find=W-0101')).lines[0];
  await beside('A tree beside its cohort', `/api/trees/${treeId}/cohort`, scan);
}

await whenStarted(import.meta.url, { spots: Number(process.argv[2] ?? 250_000) }, (rig) => looks(rig));
