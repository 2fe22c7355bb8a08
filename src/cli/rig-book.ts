import { bookOf, bookPages, LABEL_KINDS, labelSheets } from '../core/formats';
import { analyse } from '../core/report';
import type { Rig } from '../core/rig';
import { printPdf } from '../print/pdf';
import { refuse } from './command';

/** The rig book, or chosen parts and labels of it, as the bytes of a PDF. */
export async function rigBook(
  rig: Rig,
  asked: { paper?: string; part?: string[]; link?: string },
): Promise<Uint8Array> {
  const paper = asked.paper ?? 'A4';
  if (paper !== 'A4' && paper !== 'Letter')
    return refuse(`"${paper}" is no paper; choose A4 or Letter.`);
  const book = bookOf(rig, analyse(rig));
  const known = [...book.map((p) => p.id), ...LABEL_KINDS];
  const wanted = asked.part ?? book.map((p) => p.id);
  const unknown = wanted.find((id) => !known.includes(id));
  if (unknown !== undefined) refuse(`There is no part "${unknown}". It has: ${known.join(', ')}.`);
  const link = asked.link ?? `http://127.0.0.1:3200/rigs/${rig.id}`;
  const labels = LABEL_KINDS.filter((k) => wanted.includes(k)).flatMap((k) =>
    labelSheets(rig, k, paper, link),
  );
  const parts = book.filter((p) => wanted.includes(p.id));
  if (!parts.length && !labels.length)
    refuse('There is nothing to print: the rig has no such labels.');
  return printPdf(
    bookPages(parts, labels, paper, {
      rig: rig.name,
      revision: 'from a file',
      date: new Date().toISOString().slice(0, 10),
    }),
  );
}
