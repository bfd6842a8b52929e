import { daysBetween, type IsoDate } from '../calendar';

/** A watering somebody charges for. */
export interface InvoiceLine {
  /** Number of the tree. */
  readonly ref: string;
  readonly wateredOn: IsoDate;
  readonly litres: number;
}

/** A watering on record, with what proves it. */
export interface ProvenWatering extends InvoiceLine {
  readonly by: string;
  /** Photos taken at the tree that day. */
  readonly photos: number;
  /** Not seen by anybody of the programme. */
  readonly unseen: boolean;
}

export const invoiceVerdicts = ['proven', 'less_water', 'other_day', 'charged_twice', 'not_on_record'] as const;
export type InvoiceVerdict = (typeof invoiceVerdicts)[number];

export interface CheckedLine {
  readonly line: InvoiceLine;
  readonly verdict: InvoiceVerdict;
  /** What stands against it; `null` where nothing does. */
  readonly proof: ProvenWatering | null;
}

export interface InvoiceCheck {
  readonly lines: readonly CheckedLine[];
  /** On record between the first and the last day charged, at trees that are on the invoice, and charged by no line. */
  readonly uncharged: readonly ProvenWatering[];
}

/** A record counts for a line this many days off: midnight, and who writes up a round the morning after. */
const dayOff = 1;
/** Less than this of what is charged was not what is charged. */
const leastShare = 0.9;

/**
 * Holds an invoice against what was recorded at the trees, line by line. Each record proves one line; the nearest day is
 * taken first, then the line that was there first.
 */
export function checkInvoice(lines: readonly InvoiceLine[], records: readonly ProvenWatering[]): InvoiceCheck {
  const key = (ref: string): string => ref.trim().toLowerCase();
  const free = new Map<string, ProvenWatering[]>();
  for (const record of records) free.set(key(record.ref), [...(free.get(key(record.ref)) ?? []), record]);
  const proofs = new Map<number, ProvenWatering>();
  for (let off = 0; off <= dayOff; off++) {
    lines.forEach((line, i) => {
      if (proofs.has(i)) return;
      const at = free.get(key(line.ref)) ?? [];
      const proof = at.find(({ wateredOn }) => Math.abs(daysBetween(wateredOn, line.wateredOn)) === off);
      if (!proof) return;
      proofs.set(i, proof);
      free.set(
        key(line.ref),
        at.filter((one) => one !== proof),
      );
    });
  }
  const charged = new Set<string>();
  const checked = lines.map((line, i): CheckedLine => {
    const proof = proofs.get(i) ?? null;
    const day = `${key(line.ref)} ${line.wateredOn}`;
    const again = charged.has(day);
    charged.add(day);
    if (proof === null) return { line, verdict: again ? 'charged_twice' : 'not_on_record', proof };
    if (proof.litres < leastShare * line.litres) return { line, verdict: 'less_water', proof };
    return { line, verdict: proof.wateredOn === line.wateredOn ? 'proven' : 'other_day', proof };
  });
  const days = lines.map(({ wateredOn }) => wateredOn).sort((a, b) => a.localeCompare(b));
  const [first, last] = [days[0] ?? '', days.at(-1) ?? ''];
  const trees = new Set(lines.map(({ ref }) => key(ref)));
  const uncharged = [...free.entries()]
    .filter(([ref]) => trees.has(ref))
    .flatMap(([, left]) => left)
    .filter(({ wateredOn }) => wateredOn >= first && wateredOn <= last);
  return { lines: checked, uncharged };
}
