const longestPx = 1600;

/**
 * A photo drawn anew at 1600 px at most, as JPEG: small enough for a bad line, and without the position and
 * device data a camera writes into its files.
 * @throws TypeError for a file that is no picture this browser can read
 */
export async function shrinkPhoto(file: Blob): Promise<Blob> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new TypeError('This file is not a picture this device can read');
  });
  const scale = Math.min(1, longestPx / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(picture.width * scale);
  canvas.height = Math.round(picture.height * scale);
  canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((resolve, reject) => {
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new TypeError('The picture could not be made smaller'))),
      'image/jpeg',
      0.82,
    );
  });
}
