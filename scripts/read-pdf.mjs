import { readFileSync } from 'node:fs';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';

/**
 * For tests: reads a PDF with a library that did not write it, and prints its pages as JSON: size
 * and texts with their places, in mm from the upper left.
 */
const MM = 25.4 / 72;
const pdf = await getDocument({
  data: new Uint8Array(readFileSync(process.argv[2])),
  verbosity: 0,
  useSystemFonts: false,
}).promise;
const pages = [];
for (let n = 1; n <= pdf.numPages; n++) {
  const page = await pdf.getPage(n);
  const { width, height } = page.getViewport({ scale: 1 });
  const { items } = await page.getTextContent();
  pages.push({
    width: width * MM,
    height: height * MM,
    texts: items
      .filter((i) => i.str.trim())
      .map((i) => ({
        text: i.str,
        x: i.transform[4] * MM,
        y: (height - i.transform[5]) * MM,
        size: Math.hypot(i.transform[0], i.transform[1]) * MM,
      })),
  });
}
process.stdout.write(JSON.stringify(pages));
