/**
 * Where a picture says it was taken, `[lng, lat]` in degrees, read from its EXIF before the picture is drawn anew
 * without it; `null` where it says nothing.
 */
export async function photoPlace(file: Blob): Promise<[number, number] | null> {
  const [{ load }, bytes] = await Promise.all([import('exifreader'), file.arrayBuffer()]);
  try {
    const { gps } = load(bytes, { expanded: true });
    return gps?.Longitude === undefined || gps.Latitude === undefined ? null : [gps.Longitude, gps.Latitude];
  } catch {
    // No EXIF at all, or a broken one: there is nothing to keep.
    return null;
  }
}
