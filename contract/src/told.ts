import * as z from 'zod';
import { entityId, filledText, instant } from './measures';

const refText = z.string().trim().min(1).max(24);

/** A link that goes up at a place: whoever lives there tells by it what they see at a tree. */
export const makePlaceLinkSchema = z.strictObject({ id: entityId, place: z.string().trim().min(1).max(80) });
export type MakePlaceLink = z.infer<typeof makePlaceLinkSchema>;
export const placeLinkMadeSchema = z.object({ path: z.string() });
export const placeLinksSchema = z.array(
  z.object({
    id: z.uuid(),
    place: z.string(),
    madeBy: z.string(),
    madeAt: instant,
    revoked: z.boolean(),
    /** Reports that came by it. */
    told: z.int(),
  }),
);
export type PlaceLinks = z.infer<typeof placeLinksSchema>;

/** What the link shows: the trees of its place by number and kind, and nothing of anybody. */
export const openToldSchema = z.object({
  programme: z.string(),
  place: z.string(),
  trees: z.array(z.object({ ref: z.string(), species: z.string().nullable() })),
});
export type OpenTold = z.infer<typeof openToldSchema>;

/** What a resident tells; `null` where they do not know which tree it is. */
export const tellOfTreeSchema = z.strictObject({ id: entityId, ref: refText.nullable(), words: filledText(400) });
export type TellOfTree = z.infer<typeof tellOfTreeSchema>;

/** Reports that wait for somebody to say which tree is looked at, or that nothing is. */
export const toldSchema = z.object({
  reports: z.array(
    z.object({
      id: z.uuid(),
      place: z.string(),
      ref: z.string().nullable(),
      words: z.string(),
      toldAt: instant,
      hasPhoto: z.boolean(),
      /** Standing trees of the place, to choose from. */
      trees: z.array(z.object({ spotId: z.uuid(), ref: z.string() })),
    }),
  ),
});
export type Told = z.infer<typeof toldSchema>;
export const toldWaitingSchema = z.object({ reports: z.int() });
export type ToldWaiting = z.infer<typeof toldWaitingSchema>;

export const lookAtToldSchema = z.strictObject({ spotId: entityId });
export const dropToldSchema = z.strictObject({ reason: filledText(300) });
