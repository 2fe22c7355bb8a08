import { imageSize } from 'image-size';
import * as z from 'zod';
import type { Photograph } from '../core/rig';
import type { Db } from './database';

/** The largest photograph that is kept, in bytes, and the longest side, in pixels. */
export const PHOTOGRAPH_BYTES = 500_000;
const LONGEST = 4096;
/** Photographs that one unit or one sheet may have. */
const MOST = 6;

const MEDIA: Record<string, string> = {
  jpg: 'image/jpeg',
  png: 'image/png',
  webp: 'image/webp',
};

/** What a photograph shows: a unit by its serial number, or a sheet by its id. */
export const shownSchema = z.discriminatedUnion('is', [
  z.object({ is: z.literal('unit'), id: z.string().min(1).max(120) }),
  z.object({ is: z.literal('sheet'), id: z.string().min(1).max(64) }),
]);
export type Shown = z.infer<typeof shownSchema>;

export type Added = { ok: true } | { ok: false; status: 404 | 409 | 422; why: string };

const refused = (status: 404 | 409 | 422, why: string): Added => ({ ok: false, status, why });

/** How large an image is, and what it is, by its own bytes; nothing where they are no photograph. */
function looksLike(body: Uint8Array) {
  try {
    const { type = '', width, height } = imageSize(body);
    const media = MEDIA[type];
    return media && width > 0 && height > 0 ? { media, width, height } : undefined;
  } catch {
    return undefined;
  }
}

/** The columns that say what a photograph shows. */
const columns = ({ is, id }: Shown) =>
  is === 'unit' ? { serial: id, sheet_id: null } : { serial: null, sheet_id: id };

/** Keeps a photograph of a unit or a sheet of the locker; what is none, or one too many, is refused. */
export async function addPhotograph(db: Db, of: Shown, body: Uint8Array): Promise<Added> {
  const image = looksLike(body);
  if (!image) return refused(422, 'That is no photograph that can be kept: use JPEG, PNG or WebP.');
  if (Math.max(image.width, image.height) > LONGEST)
    return refused(422, `It is larger than ${LONGEST} pixels. Make it smaller and add it again.`);
  return db.transaction().execute(async (tx) => {
    // Its row is held, so that two who add at once are counted one after the other.
    const held =
      of.is === 'unit'
        ? tx.selectFrom('gear_unit').select('serial').where('serial', '=', of.id)
        : tx.selectFrom('sheet').select('id').where('id', '=', of.id);
    if (!(await held.forUpdate().executeTakeFirst()))
      return refused(404, 'The locker no longer holds what it shows.');
    const column = of.is === 'unit' ? 'serial' : 'sheet_id';
    const there = await tx
      .selectFrom('photograph')
      .select('id')
      .where(column, '=', of.id)
      .execute();
    if (there.length >= MOST)
      return refused(409, `It has ${MOST} photographs. Remove one, then add this one.`);
    await tx
      .insertInto('photograph')
      .values({ ...columns(of), ...image, body: Buffer.from(body) })
      .execute();
    return { ok: true };
  });
}

/** A photograph itself. */
export const loadPhotograph = (db: Db, id: string) =>
  db.selectFrom('photograph').select(['body', 'media']).where('id', '=', id).executeTakeFirst();

/** Takes a photograph away; `false` where there is none. */
export async function removePhotograph(db: Db, id: string): Promise<boolean> {
  const gone = await db.deleteFrom('photograph').where('id', '=', id).executeTakeFirst();
  return gone.numDeletedRows > 0n;
}

/** The photographs of all units, or of all sheets, by what they show, the oldest first. */
export async function photographsOf(db: Db, is: Shown['is']): Promise<Map<string, Photograph[]>> {
  const column = is === 'unit' ? 'serial' : 'sheet_id';
  const rows = await db
    .selectFrom('photograph')
    .select(['id', 'width', 'height', `${column} as of`])
    .where(column, 'is not', null)
    .orderBy('added_at')
    .orderBy('id')
    .execute();
  const found = new Map<string, Photograph[]>();
  for (const { of, ...photograph } of rows) {
    const key = String(of);
    found.set(key, [...(found.get(key) ?? []), photograph]);
  }
  return found;
}
