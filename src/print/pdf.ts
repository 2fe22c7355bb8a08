import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import pdfmake from 'pdfmake';

/** The part of the printer that is used here; its own types lag behind. */
interface Printer {
  setFonts: (fonts: object) => void;
  setUrlAccessPolicy?: (allow: () => boolean) => void;
  setLocalAccessPolicy?: (allow: (path: string) => boolean) => void;
  createPdf: (pages: TDocumentDefinitions) => { getBuffer: () => Promise<Buffer> };
}
const printer = pdfmake as unknown as Printer;

const fonts = join(
  dirname(createRequire(join(process.cwd(), 'package.json')).resolve('pdfmake/package.json')),
  'fonts/Roboto',
);
const face = (name: string) => join(fonts, `Roboto-${name}.ttf`);
printer.setFonts({
  Roboto: {
    normal: face('Regular'),
    bold: face('Medium'),
    italics: face('Italic'),
    bolditalics: face('MediumItalic'),
  },
});
// Pages are made from the rig alone: nothing is fetched, and nothing is read but the fonts.
printer.setUrlAccessPolicy?.(() => false);
printer.setLocalAccessPolicy?.((path) => path.startsWith(fonts));

/** Turns a page description into the bytes of a PDF. */
export const printPdf = (pages: TDocumentDefinitions): Promise<Buffer> =>
  printer.createPdf(pages).getBuffer();
