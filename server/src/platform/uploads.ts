import { InvalidInputError } from '@sombra/core';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';

const extensionOf = {
  'application/pdf': 'pdf',
  'image/jpeg': 'jpg',
  'image/png': 'png',
  'image/webp': 'webp',
} as const;
export type UploadKind = keyof typeof extensionOf;

/** What a file is, by its first bytes; what its name or header claims counts for nothing. */
export function kindOf(bytes: Uint8Array): UploadKind | null {
  const head = Buffer.from(bytes.subarray(0, 12)).toString('latin1');
  if (head.startsWith('%PDF-')) return 'application/pdf';
  if (head.startsWith('\xff\xd8\xff')) return 'image/jpeg';
  if (head.startsWith('\x89PNG\r\n\x1a\n')) return 'image/png';
  return head.startsWith('RIFF') && head.endsWith('WEBP') ? 'image/webp' : null;
}

/** A picture larger than this is no photo of a tree: it would only fill memory. */
const mostPixels = 60_000_000;
const longestPx = 1600;

/**
 * A photo decoded and written anew as JPEG, at most 1600 px: what is stored is a picture and nothing else, without
 * the position and device data a camera writes into its files.
 * @throws InvalidInputError for what only begins like a picture
 */
export async function redrawPhoto(bytes: Uint8Array): Promise<Uint8Array> {
  try {
    return await sharp(bytes, { limitInputPixels: mostPixels, failOn: 'error' })
      .rotate()
      .resize({ width: longestPx, height: longestPx, fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 82 })
      .toBuffer();
  } catch {
    throw new InvalidInputError('file must be a whole picture', 'file', {
      title: 'The file is not a picture that can be read whole',
    });
  }
}

/**
 * Keeps a photo, drawn anew, in the storage folder.
 * @throws InvalidInputError for a file that is no picture
 */
export async function keepPhoto(
  folder: string,
  name: string,
  bytes: Uint8Array,
): Promise<{ storedAs: string; contentType: UploadKind; bytes: number }> {
  const kinds = ['image/jpeg', 'image/png', 'image/webp'] as const;
  requireKind(bytes, kinds);
  const drawn = await redrawPhoto(bytes);
  return { ...(await keepFile(folder, name, drawn, kinds)), bytes: drawn.length };
}

/** @throws InvalidInputError for an empty file or one of a kind that is not asked for */
function requireKind(bytes: Uint8Array, kinds: readonly UploadKind[]): UploadKind {
  const kind = kindOf(bytes);
  if (kind && kinds.includes(kind)) return kind;
  const asked = kinds.map((one) => extensionOf[one].toUpperCase()).join(', ');
  throw new InvalidInputError(`file must be one of ${asked}`, 'file', { title: `The file is none of ${asked}` });
}

/**
 * Keeps an upload in the storage folder, whole or not at all. The same name written again holds the same thing.
 * @throws InvalidInputError for an empty file or one of a kind that is not asked for
 */
export async function keepFile(
  folder: string,
  name: string,
  bytes: Uint8Array,
  kinds: readonly UploadKind[],
): Promise<{ storedAs: string; contentType: UploadKind }> {
  const kind = requireKind(bytes, kinds);
  await mkdir(folder, { recursive: true });
  const storedAs = `${name}.${extensionOf[kind]}`;
  const file = path.join(folder, storedAs);
  await writeFile(`${file}.part`, bytes);
  await rename(`${file}.part`, file);
  return { storedAs, contentType: kind };
}
