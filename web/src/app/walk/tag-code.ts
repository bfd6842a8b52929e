/** What a code on a tag or a card names: a tree or a spot by its id, or a spot by its number. */
export type TagCode =
  { readonly kind: 'tree' | 'spot'; readonly id: string } | { readonly kind: 'ref'; readonly ref: string };

const uuid = /[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/i;

/** Reads the text of a code; `null` for a code of something else. */
export function readTag(text: string): TagCode | null {
  const id = uuid.exec(text)?.[0].toLowerCase();
  if (id && /\/tree\//.test(text)) return { kind: 'tree', id };
  if (id && /\/(town|ground|match|stock|pit|day|inspect)\//.test(text)) return { kind: 'spot', id };
  const ref = text.trim();
  return /^[\p{L}\p{N}][\p{L}\p{N} .\-/]{0,23}$/u.test(ref) && !id ? { kind: 'ref', ref } : null;
}
