import { createHash } from 'node:crypto';

/** Stands for a secret where others may read it: the token of a link, a code, the id of a session. */
export const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');
