/**
 * An id that is not in use yet, made from a word: "amber-drive", then "amber-drive-2".
 *
 *     freshId('Amber Drive', rig.devices.map((d) => d.id))
 */
export function freshId(word: string, taken: Iterable<string>): string {
  const used = new Set(taken);
  const base = word.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-+|-+$/g, '').slice(0, 40) || 'item';
  const free = (id: string) => !used.has(id) && !(id in Object.prototype);
  if (free(base)) return base;
  for (let n = 2; ; n++) if (free(`${base}-${n}`)) return `${base}-${n}`;
}
