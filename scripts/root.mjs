import path from 'node:path';
import { fileURLToPath } from 'node:url';

/** The folder of the repository. */
export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..');
