import { sealedInfo, sealedText, type PublicKey, type Sealed, type SealingKey } from '@sombra/contract';
import { randomUUID, webcrypto, type webcrypto as WebCrypto } from 'node:crypto';
import type { Answer, Visitor } from './test-town';

const { subtle } = webcrypto;
const out = (bytes: ArrayBuffer | Uint8Array): string => Buffer.from(bytes as ArrayBuffer).toString('base64url');

const publicOf = async (key: WebCrypto.CryptoKey): Promise<PublicKey> => {
  const { x = '', y = '' } = await subtle.exportKey('jwk', key);
  return { kty: 'EC', crv: 'P-256', x, y };
};

/** A device that seals as browsers do, for tests of the server alone. */
export class SealingDevice {
  readonly id = randomUUID();
  sealTo!: SealingKey;
  private constructor(
    private readonly pair: WebCrypto.CryptoKeyPair,
    readonly key: PublicKey,
  ) {}

  static async made(): Promise<SealingDevice> {
    const pair = await subtle.generateKey({ name: 'ECDSA', namedCurve: 'P-256' }, true, ['sign', 'verify']);
    return new SealingDevice(pair, await publicOf(pair.publicKey));
  }

  async register(visitor: Visitor): Promise<Answer<SealingKey>> {
    const answer = await visitor.send<SealingKey>('POST', '/api/devices', {
      id: this.id,
      name: 'A phone',
      key: this.key,
    });
    if (answer.status === 200) this.sealTo = answer.body;
    return answer;
  }

  async seal(id: string, content: object): Promise<Sealed> {
    const made = await subtle.generateKey({ name: 'ECDH', namedCurve: 'P-256' }, true, ['deriveBits']);
    const curve = { name: 'ECDH', namedCurve: 'P-256' };
    const theirs = await subtle.importKey('jwk', this.sealTo.key, curve, false, []);
    const shared = await subtle.deriveBits({ name: 'ECDH', public: theirs }, made.privateKey, 256);
    const material = await subtle.importKey('raw', shared, 'HKDF', false, ['deriveKey']);
    const info = new TextEncoder().encode(sealedInfo);
    const hkdf = { name: 'HKDF', hash: 'SHA-256', salt: new Uint8Array(), info };
    const key = await subtle.deriveKey(hkdf, material, { name: 'AES-GCM', length: 256 }, false, ['encrypt']);
    const iv = webcrypto.getRandomValues(new Uint8Array(12));
    const text = new TextEncoder().encode(JSON.stringify(content));
    const data = await subtle.encrypt({ name: 'AES-GCM', iv }, key, text);
    const unsigned = {
      version: 1 as const,
      id,
      keyId: this.sealTo.id,
      deviceId: this.id,
      made: await publicOf(made.publicKey),
      iv: out(iv),
      data: out(data),
    };
    const signing = { name: 'ECDSA', hash: 'SHA-256' };
    const signature = await subtle.sign(signing, this.pair.privateKey, new TextEncoder().encode(sealedText(unsigned)));
    return { ...unsigned, signature: out(signature) };
  }
}
