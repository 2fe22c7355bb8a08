import type { Rig } from '../../core/rig/schema';
import { cutText } from '../../core/rig/text';
import { writeRig } from '../../core/rig/write';

/** What no file system takes in a name. */
const NO_NAME = /[\\/:*?"<>|\p{Cc}]+/gu;

/** A name for a file, of any words: what cannot stand in one becomes a space, and it is not too long. */
export const fileName = (...words: string[]): string =>
  cutText(words.join(', ').replace(NO_NAME, ' ').replace(/\s+/g, ' ').trim(), 80) || 'Yantrel';

/** Gives a file to the person. */
export function save(name: string, content: string | Blob, type: string): void {
  const url = URL.createObjectURL(
    typeof content === 'string' ? new Blob([content], { type }) : content,
  );
  const a = Object.assign(document.createElement('a'), { href: url, download: name });
  a.click();
  URL.revokeObjectURL(url);
}

/** Dots per pixel of a drawing made into a picture, so that it prints well. */
const SHARPNESS = 2;
/** Browsers refuse larger canvases. */
const MOST_PIXELS = 16_000;

/** Paints an SVG drawing as a PNG picture, at twice its size where that fits. */
export async function toPng(svg: string): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await image.decode();
  const scale = Math.min(
    SHARPNESS,
    MOST_PIXELS / Math.max(image.naturalWidth, image.naturalHeight),
  );
  const canvas = Object.assign(document.createElement('canvas'), {
    width: Math.round(image.naturalWidth * scale),
    height: Math.round(image.naturalHeight * scale),
  });
  const context = canvas.getContext('2d');
  if (!context) throw new Error('this browser cannot paint pictures');
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('the picture is too large'))),
      'image/png',
    ),
  );
}

/** Saves a rig as a file that can be imported again. */
export const saveRigFile = (rig: Rig): void =>
  save(`${fileName(rig.name)}.yantrel.json`, writeRig(rig), 'application/json');
