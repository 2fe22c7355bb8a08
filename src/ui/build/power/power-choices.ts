import { sure } from '../../../core/outcome';
import { powerPlugWords } from '../../../core/build';
import { type Outlet, POWER_PLUGS } from '../../../core/kinds';

export const PLUGS = POWER_PLUGS.map((value) => ({ value, label: powerPlugWords(value) }));
export const CURRENTS = [
  { value: 'negative', label: 'DC, centre negative' },
  { value: 'positive', label: 'DC, centre positive' },
  { value: 'ac', label: 'AC' },
];

export const currentOf = (x: { ac?: boolean; centre?: string }): string =>
  x.ac ? 'ac' : (x.centre ?? 'negative');
export const asCurrent = (v: string): { ac: boolean; centre: 'negative' | 'positive' } => ({
  ac: v === 'ac',
  centre: v === 'positive' ? 'positive' : 'negative',
});

/** The voltages of an outlet as they are typed: "9, 12, 18"; nothing where it is not a list of voltages. */
export function voltsFrom(text: string): Pick<Outlet, 'volts' | 'also'> | undefined {
  const all = text
    .split(/[,;/\s]+/)
    .filter(Boolean)
    .map(Number);
  if (!all.length || all.length > 9 || all.some((v) => !(v > 0 && v <= 60))) return undefined;
  const [volts, ...also] = [...new Set(all)];
  return { volts: sure(volts), also };
}
