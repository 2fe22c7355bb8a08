import * as z from 'zod';
import { LABEL_KINDS } from '@/core/formats';
import { checkRig, type Rig } from '@/core/rig';
import { answer, problem, RIG_BYTES } from '@/server/answers';
import { database } from '@/server/database';
import { heavy } from '@/server/heavy/pool';
import type { BookChoice } from '@/server/heavy/tasks';
import { loadRig } from '@/server/rigs';

export const dynamic = 'force-dynamic';

const choice = z.object({
  paper: z.enum(['A4', 'Letter']),
  /** Parts by their ids; all where it is left out. */
  parts: z.array(z.string().max(40)).max(60).optional(),
  labels: z.array(z.enum(LABEL_KINDS)).max(4),
  level: z.enum(['dBu', 'dBV']),
  length: z.enum(['metric', 'imperial']),
  revision: z.string().max(60),
  date: z.iso.date(),
  /** Where others reach this server, for the codes on labels; as it was asked, where it is left out. */
  address: z
    .url({ protocol: /^https?$/ })
    .max(200)
    .optional(),
});

const pdf = async (rig: Rig, book: BookChoice): Promise<Response> => {
  const bytes = await heavy('book', { rig, choice: book });
  return bytes
    ? new Response(new Uint8Array(bytes), {
        headers: {
          'content-type': 'application/pdf',
          'content-disposition': `attachment; filename="${rig.id}-book.pdf"`,
        },
      })
    : problem(422, 'There is nothing to print.', {
        detail: 'Choose a part of the book, or labels that the rig has.',
      });
};

const linkTo = (request: Request, id: string, address?: string): string =>
  address
    ? `${address.replace(/\/+$/, '')}/rigs/${id}`
    : `${new URL(request.url).protocol}//${request.headers.get('host') ?? new URL(request.url).host}/rigs/${id}`;

/** The rig book of what is on the screen, saved or not. */
export const POST = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(
    request,
    choice.extend({ rig: z.unknown() }),
    async ({ rig, address, ...c }) => {
      const whole = checkRig(rig);
      if (!whole.ok)
        return problem(422, 'That rig cannot be printed.', { problems: whole.problems });
      return pdf(whole.value, { ...c, link: linkTo(request, (await params).id, address) });
    },
    RIG_BYTES,
  );

/** The rig book of the newest revision, on A4. */
export const GET = (request: Request, { params }: { params: Promise<{ id: string }> }) =>
  answer(request, null, async () => {
    const saved = await loadRig(database(), (await params).id);
    if (!saved) return problem(404, 'There is no such rig.');
    const paper = new URL(request.url).searchParams.get('paper') === 'Letter' ? 'Letter' : 'A4';
    return pdf(saved.rig, {
      paper,
      labels: [],
      level: 'dBu',
      length: 'metric',
      revision: `revision ${saved.revision}`,
      date: new Date().toISOString().slice(0, 10),
      link: linkTo(request, saved.rig.id),
    });
  });
