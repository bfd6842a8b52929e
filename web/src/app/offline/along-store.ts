import { Dexie, type EntityTable } from 'dexie';

/** A spot as the server last sent it, with all that its benches ask for. */
export interface KeptSpot {
  readonly id: string;
  readonly treeId: string;
  readonly userId: string;
  readonly ref: string;
  /** As it came: read through its schema when it is shown. */
  readonly body: unknown;
  readonly bytes: number;
  readonly keptAt: number;
  /** Part of what was taken along; others were opened by hand. */
  readonly taken: boolean;
}

/** What this device holds of the programme, for where there is no network. It can be had again, unlike the outbox. */
export class AlongStore extends Dexie {
  spots!: EntityTable<KeptSpot, 'id'>;

  constructor(name = 'sombra-along') {
    super(name);
    this.version(1).stores({ spots: 'id, treeId, keptAt' });
  }
}
