import * as z from 'zod';
import { answer, problem } from '@/server/answers';
import { database } from '@/server/database';
import { loadPhotograph, removePhotograph } from '@/server/photographs';

export const dynamic = 'force-dynamic';

type Context = { params: Promise<{ id: string }> };
const missing = () => problem(404, 'There is no such photograph any more.');
const idOf = async ({ params }: Context) => z.uuid().safeParse((await params).id).data;

/** The photograph itself. It never changes under its id. */
export const GET = (request: Request, context: Context) =>
  answer(request, null, async () => {
    const id = await idOf(context);
    const found = id && (await loadPhotograph(database(), id));
    if (!found) return missing();
    return new Response(new Uint8Array(found.body), {
      headers: {
        'content-type': found.media,
        'x-content-type-options': 'nosniff',
        'content-security-policy': "default-src 'none'; sandbox",
        'cache-control': 'private, max-age=31536000, immutable',
      },
    });
  });

export const DELETE = (request: Request, context: Context) =>
  answer(request, null, async () => {
    const id = await idOf(context);
    return id && (await removePhotograph(database(), id)) ? Response.json({}) : missing();
  });
