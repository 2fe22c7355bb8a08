import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import { type Block, type BookPart, drawnOn } from './book';
import { missingScripts } from './scripts';
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
    return [...title, ...blocksOf(part.blocks, area(wide))];
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
    content: [...missingWords([parts, foot, labels]), ...content, ...labels.map(upright)],
    pageBreakBefore: (node, { getFollowingNodesOnPage }) =>
      node.headlineLevel === 1 && getFollowingNodesOnPage().length === 0,
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

/** What a title over a drawing takes, in points. */
const TITLE_PT = 40;

/** Columns with more letters than this share what room is left; others are as wide as they need. */
const LONG = 20;

/** What is said first where letters are missing; nothing where all are there. */
function missingWords(printed: unknown): Content[] {
  const missing = missingScripts([JSON.stringify(printed)]);
  return missing.length
    ? [
        {
          text:
            `The typeface of this paper has no letters for ${missing.join(', ')}: such words are boxes ` +
            'here. The same book printed from the browser (Build, Rig book, Print) has them.',
          bold: true,
          margin: [0, 0, 0, 6],
        },
      ]
    : [];
}

/** Blocks in their order, a heading on the page of what it is over. */
function blocksOf(blocks: readonly Block[], area: { width: number; height: number }): Content[] {
  const out: Content[] = [];
  for (let i = 0; i < blocks.length; i++) {
    const [b, next] = [blocks[i], blocks[i + 1]];
    if (!b) continue;
    if (b.is === 'heading' && next && isShort(next)) {
      out.push({ stack: [blockOf(b, area), blockOf(next, area)], unbreakable: true });
      i++;
    } else out.push(blockOf(b, area));
  }
  return out;
}

const isShort = (b: Block): boolean =>
  b.is === 'words' ||
  (b.is === 'table' && b.rows.length <= FEW_ROWS) ||
  (b.is === 'list' && b.items.length <= FEW_ROWS);

function blockOf(b: Block, area: { width: number; height: number }): Content {
  if (b.is === 'words') return { text: b.words, margin: [0, 0, 0, 4] };
  if (b.is === 'heading') return { text: b.words, style: 'heading', headlineLevel: 1 };
  if (b.is === 'drawing')
    return {
      stack: drawnOn(b, { width: area.width, height: area.height - TITLE_PT }).map(
        ({ svg, width, scale }): Content => ({
          svg: svg.replace(/^<\?xml[^>]*\?>\s*/, ''),
          width: width * scale,
          margin: [0, 0, 0, 8],
        }),
      ),
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
  return b.rows.length ? tableOf(b, area.width) : { text: 'Nothing.', margin: [0, 0, 0, 4] };
}

type Table = Extract<Block, { is: 'table' }>;

/** Tables of so few rows stand on one page; of longer ones so many rows at the end stay together. */
const FEW_ROWS = 14;
const LAST_ROWS = 3;

/** A table: its head again on every page, no row cut, and no single row left over for the next page. */
function tableOf(b: Table, width: number): Content {
  const widths = widthsOf(b, width);
  const cells = (rows: string[][]) =>
    rows.map((r) => r.map((text, i): TableCell => ({ text, ...(i === b.bold && { bold: true }) })));
  const head = [b.head.map((text): TableCell => ({ text, bold: true }))];
  const lines = (hasHead: boolean) => ({
    hLineWidth: (i: number) => (hasHead && i === 1 ? 1 : i === 0 ? 0 : 0.3),
    vLineWidth: () => 0,
    hLineColor: () => '#666666',
    paddingLeft: (i: number) => (i ? 4 : 0),
    paddingRight: () => 4,
    paddingTop: () => 1.6,
    paddingBottom: () => 1.6,
  });
  const few = b.rows.length <= FEW_ROWS;
  const most = few ? b.rows.length : b.rows.length - LAST_ROWS;
  const body: Content = {
    fontSize: TABLE_PT,
    margin: [0, 2, 0, few ? 8 : 0],
    ...(few && { unbreakable: true }),
    table: {
      headerRows: 1,
      dontBreakRows: true,
      keepWithHeaderRows: 2,
      widths,
      body: [...head, ...cells(b.rows.slice(0, most))],
    },
    layout: lines(true),
  };
  if (few) return body;
  const last: Content = {
    fontSize: TABLE_PT,
    margin: [0, 0, 0, 8],
    unbreakable: true,
    table: { dontBreakRows: true, widths, body: cells(b.rows.slice(most)) },
    layout: lines(false),
  };
  return { stack: [body, last] };
}

const TABLE_PT = 8;
/** What a letter of a table takes on average, and a column beside its letters, in points. */
const LETTER_PT = 4.6;
const PADDING_PT = 9;

/** Widths of columns in points: what their longest words need, long columns sharing what is left. */
function widthsOf(b: Table, width: number): number[] {
  const longest = b.head.map((h, i) =>
    Math.max(h.length * 1.1, ...b.rows.map((r) => r[i]?.length ?? 0)),
  );
  const needs = longest.map((n) => Math.min(n, LONG) * LETTER_PT + PADDING_PT);
  const left = width - needs.reduce((a, n) => a + n, 0);
  const extra = longest.map((n) => Math.max(0, n - LONG));
  const sum = extra.reduce((a, n) => a + n, 0);
  const padding = b.head.length * PADDING_PT;
  const squeeze = left < 0 ? (width - padding) / (width - left - padding) : 1;
  return needs.map((n, i) => {
    const more =
      left > 0 && sum > 0
        ? Math.min((left * (extra[i] ?? 0)) / sum, (extra[i] ?? 0) * LETTER_PT)
        : 0;
    return (n - PADDING_PT) * squeeze + more;
  });
}
