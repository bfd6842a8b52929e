import { createHash, randomBytes } from 'node:crypto';

/** Stands for a secret where others may read it: the token of a link, a code, the id of a session. */
export const hashOf = (secret: string): string => createHash('sha256').update(secret).digest('hex');

/** The secret of a link: nothing to guess, and no character that would have to be encoded in an address. */
export const newToken = (): string => randomBytes(24).toString('base64url');
