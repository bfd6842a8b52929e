import { sealedInfo, sealedText, type Sealed, type SealedContent, type SealingKey } from '@sombra/contract';
import { publicKeyOf } from './device-store';

const text = (words: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(words);

export function toBase64(bytes: Uint8Array): string {
  let binary = '';
  // In parts: a call takes only so many arguments.
  for (let at = 0; at < bytes.length; at += 32_768) binary += String.fromCharCode(...bytes.subarray(at, at + 32_768));
  return btoa(binary);
}
const toBase64Url = (bytes: ArrayBuffer | Uint8Array): string =>
  toBase64(new Uint8Array(bytes)).replaceAll('+', '-').replaceAll('/', '_').replaceAll('=', '');

interface Signer {
  readonly deviceId: string;
  readonly pair: CryptoKeyPair;
}

/** Seals one thing so that only the server reads it, and signs it as this device; see `sealedSchema`. */
export async function seal(
  id: string,
  content: SealedContent,
  sealTo: SealingKey,
  { deviceId, pair }: Signer,
): Promise<Sealed> {
  const { subtle } = crypto;
  const curve = { name: 'ECDH', namedCurve: 'P-256' };
  const made = await subtle.generateKey(curve, true, ['deriveBits']);
  const theirs = await subtle.importKey('jwk', sealTo.key, curve, false, []);
  const shared = await subtle.deriveBits({ name: 'ECDH', public: theirs }, made.privateKey, 256);
  const material = await subtle.importKey('raw', shared, 'HKDF', false, ['deriveKey']);
  const hkdf = { name: 'HKDF', hash: 'SHA-256', salt: new Uint8Array(), info: text(sealedInfo) };
  const key = await subtle.deriveKey(hkdf, material, { name: 'AES-GCM', length: 256 }, false, ['encrypt']);
  const iv = crypto.getRandomValues(new Uint8Array(12));
  const data = await subtle.encrypt({ name: 'AES-GCM', iv }, key, text(JSON.stringify(content)));
  const unsigned = {
    version: 1 as const,
    id,
    keyId: sealTo.id,
    deviceId,
    made: await publicKeyOf(made.publicKey),
    iv: toBase64Url(iv),
    data: toBase64Url(data),
  };
  const signature = await subtle.sign({ name: 'ECDSA', hash: 'SHA-256' }, pair.privateKey, text(sealedText(unsigned)));
  return { ...unsigned, signature: toBase64Url(signature) };
}
