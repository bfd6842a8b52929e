import * as z from 'zod';
import { entityId, rowVersion } from './measures';

/** A view a person keeps under a name: the address of a page, and the columns of its list. */
export const viewBodySchema = z.strictObject({
  name: z.string().trim().min(1, 'must not be empty').max(60),
  path: z.string().regex(/^\/[a-z]+$/, 'must be the path of a page'),
  query: z.record(z.string().max(20), z.string().max(4000)),
});

export const saveViewSchema = viewBodySchema.extend({ id: entityId });
export const changeViewSchema = viewBodySchema.extend({ version: rowVersion.min(1) });
export const savedViewSchema = viewBodySchema.extend({ id: entityId, version: z.int() });
export const savedViewsSchema = z.array(savedViewSchema);
export type SaveView = z.infer<typeof saveViewSchema>;
export type ChangeView = z.infer<typeof changeViewSchema>;
export type SavedView = z.infer<typeof savedViewSchema>;
