import { InvalidInputError } from '@sombra/core';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import path from 'node:path';

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
  const kind = kindOf(bytes);
  if (!kind || !kinds.includes(kind)) {
    const asked = kinds.map((one) => extensionOf[one].toUpperCase()).join(', ');
    throw new InvalidInputError(`file must be one of ${asked}`, 'file', { title: `The file is none of ${asked}` });
  }
  await mkdir(folder, { recursive: true });
  const storedAs = `${name}.${extensionOf[kind]}`;
  const file = path.join(folder, storedAs);
  await writeFile(`${file}.part`, bytes);
  await rename(`${file}.part`, file);
  return { storedAs, contentType: kind };
}
