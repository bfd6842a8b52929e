// What others may use of files that also hold what is for this folder alone. It stands here and not in index.ts: an index that
// names anything itself is fetched with all it lists by every page that asks it for one thing.
export { because as waterBecause } from './reasons';
