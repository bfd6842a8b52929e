import { sealingKeySchema, type PublicKey, type SealingKey } from '@sombra/contract';
import { Dexie, type EntityTable } from 'dexie';

interface KeptThing {
  readonly name: 'pair' | 'seal_to';
  readonly value: unknown;
}

/** The keys of this device. The one it signs with cannot be read out, not by a page either. */
export class DeviceStore extends Dexie {
  kept!: EntityTable<KeptThing, 'name'>;

  constructor(name = 'sombra-device') {
    super(name);
    this.version(1).stores({ kept: 'name' });
  }

  /** The pair this device signs with, made when it is first asked for. */
  async pair(): Promise<CryptoKeyPair> {
    const kept = await this.kept.get('pair');
    if (kept) return kept.value as CryptoKeyPair;
    const made = await crypto.subtle.generateKey({ name: 'ECDSA', namedCurve: 'P-256' }, false, ['sign', 'verify']);
    await this.kept.put({ name: 'pair', value: made });
    return made;
  }

  async sealTo(): Promise<SealingKey | null> {
    const kept = sealingKeySchema.safeParse((await this.kept.get('seal_to'))?.value);
    return kept.success ? kept.data : null;
  }

  async keepSealTo(key: SealingKey): Promise<void> {
    await this.kept.put({ name: 'seal_to', value: key });
  }
}

/** Plain http has no subtle crypto: nothing can be sealed there. */
export const canSeal = (): boolean => typeof crypto !== 'undefined' && typeof crypto.subtle?.generateKey === 'function';

export async function publicKeyOf(key: CryptoKey): Promise<PublicKey> {
  const { x = '', y = '' } = await crypto.subtle.exportKey('jwk', key);
  return { kty: 'EC', crv: 'P-256', x, y };
}
