import { photoPlace } from './photo-place';

/** A file whose bytes can be read: the simulated browser's own blobs cannot. */
function fileOf(bytes: readonly number[]): Blob {
  const file = new Blob([]);
  file.arrayBuffer = () => Promise.resolve(Uint8Array.from(bytes).buffer);
  return file;
}

/** The least JPEG there is that says where it was taken: 36° 54′ N, 25° 24′ W, as a camera writes it. */
function jpegAt(latRef: 'N' | 'S', lngRef: 'E' | 'W'): Blob {
  const tiff = new DataView(new ArrayBuffer(152));
  const ascii = (at: number, text: string) => [...text].forEach((one, i) => tiff.setUint8(at + i, one.charCodeAt(0)));
  const entry = (at: number, tag: number, type: number, count: number, value: number) => {
    tiff.setUint16(at, tag);
    tiff.setUint16(at + 2, type);
    tiff.setUint32(at + 4, count);
    tiff.setUint32(at + 8, value);
  };
  const degrees = (at: number, parts: readonly number[]) =>
    parts.forEach((part, i) => {
      tiff.setUint32(at + 8 * i, part);
      tiff.setUint32(at + 8 * i + 4, 1);
    });
  ascii(0, 'MM');
  tiff.setUint16(2, 42);
  tiff.setUint32(4, 8);
  // One entry of the first directory points at the directory of the position.
  tiff.setUint16(8, 1);
  entry(10, 0x8825, 4, 1, 26);
  tiff.setUint16(26, 4);
  entry(28, 1, 2, 2, latRef.charCodeAt(0) << 24);
  entry(40, 2, 5, 3, 80);
  entry(52, 3, 2, 2, lngRef.charCodeAt(0) << 24);
  entry(64, 4, 5, 3, 104);
  degrees(80, [36, 54, 0]);
  degrees(104, [25, 24, 0]);
  const exif = Uint8Array.from([...'Exif\0\0'].map((one) => one.charCodeAt(0)));
  const length = 2 + exif.length + tiff.byteLength;
  const head = Uint8Array.from([0xff, 0xd8, 0xff, 0xe1, length >> 8, length & 255]);
  return fileOf([...head, ...exif, ...new Uint8Array(tiff.buffer), 0xff, 0xd9]);
}

describe('where a picture was taken', () => {
  it('is read from what the camera wrote into it', async () => {
    // 54 and 24 minutes are 0.9 and 0.4 of a degree.
    const west = await photoPlace(jpegAt('N', 'W'));
    expect(west?.map((deg) => deg.toFixed(6))).toEqual(['-25.400000', '36.900000']);
    const south = await photoPlace(jpegAt('S', 'E'));
    expect(south?.map((deg) => deg.toFixed(6))).toEqual(['25.400000', '-36.900000']);
  });

  it('is unknown where it wrote nothing, or nothing that can be read', async () => {
    expect(await photoPlace(fileOf([0xff, 0xd8, 0xff, 0xd9]))).toBeNull();
    expect(await photoPlace(fileOf([1, 2, 3, 4, 5]))).toBeNull();
  });
});
