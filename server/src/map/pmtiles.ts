/** Bytes of the header of a PMTiles archive, version 3 (protomaps specification, public domain). */
export const pmtilesHeaderBytes = 127;

/** Root directory and header fit into the first request a reader makes. */
const rootEnds = 16_384;
const vectorTiles = 1;
/** None, or gzip: what browsers unpack. */
const compressions = [1, 2];

/**
 * Why an archive will not do as a base map, in words that go on after *The file*; `null` where it will: its sections lie
 * within it, one after another is not asked, and it holds vector tiles.
 */
export function pmtilesFault(header: Uint8Array, size: number): string | null {
  const begins = Buffer.from(header.subarray(0, 7)).toString('latin1') === 'PMTiles' && header[7] === 3;
  if (!begins) return 'is not a PMTiles file of version 3';
  if (header.length < pmtilesHeaderBytes) return 'ends within its header';
  const view = new DataView(header.buffer, header.byteOffset, header.byteLength);
  const at = (offset: number) => Number(view.getBigUint64(offset, true));
  const [root, rootLength] = [at(8), at(16)];
  const sections = [8, 24, 40, 56].map((offset) => ({ from: at(offset), length: at(offset + 8) }));
  const within = sections.every(({ from, length }) => from >= 0 && length >= 0 && from + length <= size);
  if (!within) return 'is cut off, or says it is longer than it is';
  if (rootLength === 0 || root < pmtilesHeaderBytes || root + rootLength > rootEnds) return 'has no root directory';
  if (!compressions.includes(header[97] ?? 0) || !compressions.includes(header[98] ?? 0)) {
    return 'is compressed in a way that browsers do not read';
  }
  if (header[99] !== vectorTiles) return 'holds no vector tiles';
  const [least, most] = [header[100] ?? 0, header[101] ?? 0];
  return least > most || most > 24 ? 'names zooms that are none' : null;
}
