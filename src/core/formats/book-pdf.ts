import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { Block, BookPart } from './book';
import { type LabelSheet, MARGIN_MM, type Paper, PAPERS } from './labels/sheets';

/** Points in a millimetre. */
const PT = 72 / 25.4;
/** The foot is a little lower than the margin of a label sheet, so that a full sheet still fits. */
const FOOT_MM = MARGIN_MM - 0.6;

/** What stands at the foot of every page beside its number. */
export interface BookFoot {
  rig: string;
  revision: string;
  date: string;
}

/**
 * The book as a page description: chosen parts one after the other, each on a new page, drawings as
 * vectors, then sheets of labels at true size. Pure: a printer turns it into bytes.
 */
export function bookPages(
  parts: readonly BookPart[],
  labels: readonly LabelSheet[],
  paper: Paper,
  foot: BookFoot,
): TDocumentDefinitions {
  const area = (wide: boolean) => {
    const { width, height } = PAPERS[paper];
    const [w, h] = wide ? [height, width] : [width, height];
    return { width: (w - 2 * MARGIN_MM) * PT, height: (h - MARGIN_MM - FOOT_MM) * PT };
  };
  const content: Content[] = parts.flatMap((part, i): Content[] => {
    const wide = part.wide ?? false;
    const head: Content = {
      text: part.title,
      style: 'title',
      ...(i > 0 && { pageBreak: 'before' as const }),
      ...((i > 0 || wide) && {
        pageOrientation: wide ? ('landscape' as const) : ('portrait' as const),
      }),
    };
    const title: Content[] =
      i === 0
        ? [
            {
              text: foot.rig,
              style: 'rig',
              ...(wide && { pageOrientation: 'landscape' as const }),
            },
            { ...(head as object), pageBreak: undefined } as Content,
          ]
        : [head];
    return [...title, ...part.blocks.map((b) => blockOf(b, area(wide)))];
  });
  const upright = (s: LabelSheet, i: number): Content => ({
    svg: s.svg,
    width: s.width * PT,
    height: s.height * PT,
    ...((i > 0 || parts.length > 0) && {
      pageBreak: 'before' as const,
      pageOrientation: 'portrait' as const,
    }),
  });
  return {
    pageSize: paper === 'A4' ? 'A4' : 'LETTER',
    ...(parts[0]?.wide && { pageOrientation: 'landscape' as const }),
    pageMargins: [MARGIN_MM * PT, MARGIN_MM * PT, MARGIN_MM * PT, FOOT_MM * PT],
    info: { title: `${foot.rig}: rig book`, creator: 'Yantrel' },
    defaultStyle: { fontSize: 9, lineHeight: 1.15 },
    styles: {
      rig: { fontSize: 20, bold: true, margin: [0, 0, 0, 4] },
      title: { fontSize: 15, bold: true, margin: [0, 0, 0, 6] },
      heading: { fontSize: 11, bold: true, margin: [0, 8, 0, 3] },
    },
    content: [...content, ...labels.map(upright)],
    footer: (page, pages) => ({
      margin: [MARGIN_MM * PT, 8, MARGIN_MM * PT, 0],
      fontSize: 7.5,
      columns: [
        { text: `${foot.rig}, ${foot.revision}, ${foot.date}` },
        { text: `page ${page} of ${pages}`, alignment: 'right' },
      ],
    }),
  };
}

/** Columns with longer text than this share what room is left; others are as wide as they need. */
const LONG = 20;

function blockOf(b: Block, area: { width: number; height: number }): Content {
  if (b.is === 'words') return { text: b.words, margin: [0, 0, 0, 4] };
  if (b.is === 'heading') return { text: b.words, style: 'heading', headlineLevel: 1 };
  if (b.is === 'drawing')
    return {
      svg: b.svg.replace(/^<\?xml[^>]*\?>\s*/, ''),
      fit: [area.width, area.height - 40],
      margin: [0, 0, 0, 8],
    };
  if (b.is === 'list') {
    if (b.boxes)
      return {
        stack: b.items.map((text): Content => ({
          columns: [
            { width: 13, canvas: [{ type: 'rect', x: 0, y: 1.5, w: 7.5, h: 7.5, lineWidth: 0.6 }] },
            { width: '*', text },
          ],
          margin: [0, 0, 0, 2],
        })),
        margin: [0, 0, 0, 4],
      };
    return {
      [b.ordered ? 'ol' : 'ul']: b.items.map((text) => ({ text, margin: [0, 0, 0, 2] })),
      margin: [0, 0, 0, 4],
    } as unknown as Content;
  }
  const widths = b.head.map((h, i) =>
    Math.max(h.length, ...b.rows.map((r) => r[i]?.length ?? 0)) > LONG ? '*' : 'auto',
  );
  if (!b.rows.length) return { text: 'Nothing.', margin: [0, 0, 0, 4] };
  return {
    fontSize: 8,
    margin: [0, 2, 0, 8],
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths,
      body: [
        b.head.map((text): TableCell => ({ text, bold: true })),
        ...b.rows.map((r) =>
          r.map((text, i): TableCell => ({ text, ...(i === b.bold && { bold: true }) })),
        ),
      ],
    },
    layout: {
      hLineWidth: (i: number) => (i === 1 ? 1 : i === 0 ? 0 : 0.3),
      vLineWidth: () => 0,
      hLineColor: () => '#666666',
      paddingLeft: (i: number) => (i ? 4 : 0),
      paddingRight: () => 4,
      paddingTop: () => 1.6,
      paddingBottom: () => 1.6,
    },
  };
}
