import { InvalidInputError, NotFoundError } from '@sombra/core';
import type { Response } from 'express';
import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { StorageError } from './problems';

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
  // Loaded with the first picture: most servers start far more often than they see one.
  const { default: sharp } = await import('sharp');
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

export interface KeptFile {
  readonly storedAs: string;
  readonly contentType: UploadKind;
  readonly bytes: number;
}

/**
 * Keeps a photo, drawn anew, in the storage folder.
 * @throws InvalidInputError for a file that is no picture, StorageError where it cannot be written
 */
export async function keepPhoto(folder: string, bytes: Uint8Array): Promise<KeptFile> {
  const kinds = ['image/jpeg', 'image/png', 'image/webp'] as const;
  requireKind(bytes, kinds);
  return keepFile(folder, await redrawPhoto(bytes), kinds);
}

/** @throws InvalidInputError for an empty file or one of a kind that is not asked for */
function requireKind(bytes: Uint8Array, kinds: readonly UploadKind[]): UploadKind {
  const kind = kindOf(bytes);
  if (kind && kinds.includes(kind)) return kind;
  const asked = kinds.map((one) => extensionOf[one].toUpperCase()).join(', ');
  throw new InvalidInputError(`file must be one of ${asked}`, 'file', { title: `The file is none of ${asked}` });
}

/**
 * Keeps an upload in the storage folder, whole or not at all, under a name made of what it holds: the same file sent
 * again is the same file, and no other can take its place.
 * @throws InvalidInputError for an empty file or one of a kind that is not asked for, StorageError where it cannot be
 *   written
 */
export async function keepFile(folder: string, bytes: Uint8Array, kinds: readonly UploadKind[]): Promise<KeptFile> {
  const kind = requireKind(bytes, kinds);
  const storedAs = `${createHash('sha256').update(bytes).digest('hex')}.${extensionOf[kind]}`;
  await writeWhole(folder, storedAs, bytes);
  return { storedAs, contentType: kind, bytes: bytes.length };
}

/** Writes beside, flushes to the disk, then renames: after a fault there is the whole file or none. */
async function writeWhole(folder: string, name: string, bytes: Uint8Array): Promise<void> {
  const file = path.join(folder, name);
  const part = `${file}.${randomUUID()}.part`;
  try {
    await mkdir(folder, { recursive: true });
    if ((await sizeOf(file)) === bytes.length) return;
    const handle = await open(part, 'wx');
    try {
      await handle.writeFile(bytes);
      await handle.sync();
    } finally {
      await handle.close();
    }
    await rename(part, file);
    await syncFolder(folder);
  } catch (error) {
    await rm(part, { force: true }).catch(() => undefined);
    throw storageFault(error);
  }
}

const sizeOf = async (file: string): Promise<number | null> =>
  stat(file).then(
    ({ size }) => size,
    () => null,
  );

async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r');
  await handle.sync().finally(() => handle.close());
}

/** A disk that is full or may not be written is told as such; anything else is what it was. */
export function storageFault(error: unknown): unknown {
  const { code } = error as { code?: unknown };
  const unwritable = ['ENOSPC', 'EDQUOT', 'EROFS', 'EACCES', 'EPERM', 'ENOTDIR', 'EEXIST', 'EMFILE'];
  return typeof code === 'string' && unwritable.includes(code) ? new StorageError(code) : error;
}

/** A picture no wider or higher than so many pixels: to be taken along, or shown among many. */
export async function sendSmall(
  response: Response,
  folder: string,
  file: { readonly storedAs: string; readonly contentType: string },
  longest: number,
): Promise<void> {
  const small = await smallPhoto(path.resolve(folder, file.storedAs), longest);
  if (!small) return sendKept(response, folder, file);
  response.type('image/jpeg').setHeader('cache-control', 'private, max-age=86400');
  response.send(small);
}

/** A kept picture made smaller, as JPEG; `null` where it is gone from the storage folder. */
export async function smallPhoto(whole: string, longest: number): Promise<Buffer | null> {
  if ((await sizeOf(whole)) === null) return null;
  const { default: sharp } = await import('sharp');
  return sharp(whole, { limitInputPixels: mostPixels })
    .resize({ width: longest, height: longest, fit: 'inside', withoutEnlargement: true })
    .jpeg({ quality: 70 })
    .toBuffer();
}

/** Answers with a kept file. @throws NotFoundError where it is gone from the storage folder */
export async function sendKept(
  response: Response,
  folder: string,
  file: { readonly storedAs: string; readonly contentType: string },
): Promise<void> {
  const whole = path.resolve(folder, file.storedAs);
  if ((await sizeOf(whole)) === null) {
    const title = 'The file is missing from the storage; its record is kept';
    throw new NotFoundError('the file is missing from the storage', 'id', { title });
  }
  response.type(file.contentType).setHeader('cache-control', 'private, max-age=86400');
  response.sendFile(whole, { dotfiles: 'allow' });
}
