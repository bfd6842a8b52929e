import {
  sealedContentSchema,
  sealedInfo,
  sealedText,
  type PublicKey,
  type Sealed,
  type SealedContent,
} from '@sombra/contract';
import { InvalidInputError } from '@sombra/core';
import { webcrypto, type webcrypto as WebCrypto } from 'node:crypto';
import { parse } from '../platform/problems';

const { subtle } = webcrypto;
const curve = { name: 'ECDH', namedCurve: 'P-256' } as const;
const bytesOf = (base64url: string): Uint8Array => Buffer.from(base64url, 'base64url');
const textBytes = (text: string): Uint8Array => new TextEncoder().encode(text);

/** Both halves of a new key to seal to, as JSON Web Keys. */
export async function makeSealingKey(): Promise<{ key: PublicKey; secret: WebCrypto.JsonWebKey }> {
  const pair = await subtle.generateKey(curve, true, ['deriveBits']);
  const { x = '', y = '' } = await subtle.exportKey('jwk', pair.publicKey);
  return { key: { kty: 'EC', crv: 'P-256', x, y }, secret: await subtle.exportKey('jwk', pair.privateKey) };
}

const notOurs = (what: string): InvalidInputError =>
  new InvalidInputError(`${what} does not fit`, what, {
    title: 'This was not sealed by a device of this programme, or was changed since',
  });

/** @throws InvalidInputError where the device did not sign just this */
export async function requireSigned(sealed: Sealed, key: PublicKey): Promise<void> {
  const signed = await subtle
    .importKey('jwk', key, { name: 'ECDSA', namedCurve: 'P-256' }, false, ['verify'])
    .then((imported) =>
      subtle.verify(
        { name: 'ECDSA', hash: 'SHA-256' },
        imported,
        bytesOf(sealed.signature),
        textBytes(sealedText(sealed)),
      ),
    )
    .catch(() => false);
  if (!signed) throw notOurs('signature');
}

/**
 * Opens what a device sealed to the key whose secret half this is.
 * @throws InvalidInputError where it is sealed to another key, or holds what cannot be read
 */
export async function openSealed(sealed: Sealed, secret: WebCrypto.JsonWebKey): Promise<SealedContent> {
  let text: string;
  try {
    const [ours, theirs] = await Promise.all([
      subtle.importKey('jwk', secret, curve, false, ['deriveBits']),
      subtle.importKey('jwk', sealed.made, curve, false, []),
    ]);
    const shared = await subtle.deriveBits({ name: 'ECDH', public: theirs }, ours, 256);
    const material = await subtle.importKey('raw', shared, 'HKDF', false, ['deriveKey']);
    const hkdf = { name: 'HKDF', hash: 'SHA-256', salt: new Uint8Array(), info: textBytes(sealedInfo) };
    const key = await subtle.deriveKey(hkdf, material, { name: 'AES-GCM', length: 256 }, false, ['decrypt']);
    const opened = await subtle.decrypt({ name: 'AES-GCM', iv: bytesOf(sealed.iv) }, key, bytesOf(sealed.data));
    text = new TextDecoder('utf-8', { fatal: true }).decode(opened);
  } catch {
    throw notOurs('data');
  }
  try {
    return parse(sealedContentSchema, JSON.parse(text) as unknown);
  } catch {
    throw notOurs('data');
  }
}
