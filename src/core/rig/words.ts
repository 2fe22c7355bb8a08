import { findKind } from '../kinds';
import { asSet, clockHour } from '../units';
import type { USUAL } from './build-schema';
import type { Address, SettingValue } from './schema';

export const USUAL_WORDS: Record<(typeof USUAL)[number], string> = {
  power: 'power',
  gives: 'outlets',
  size: 'size',
  units: 'rack units',
  jackSpots: 'jacks',
  mains: 'mains',
};

/** A setting's value as a person would say it: knobs of 0 to 10 by clock hour. */
export function settingWords(
  kindId: string | undefined,
  setting: string,
  value: SettingValue,
): string {
  const p = kindId ? findKind(kindId)?.parameters.find((x) => x.id === setting) : undefined;
  if (p?.type === 'knob' && typeof value === 'number')
    return p.unit ? `${p.label} ${asSet(value, p.unit)}` : `${p.label} at ${clockHour(value)}`;
  if (p?.type === 'choice')
    return `${p.label}: ${p.options.find((o) => o.value === value)?.label ?? value}`;
  if (p?.type === 'text') return `${p.label}: ${value === '' ? 'none' : value}`;
  if (p?.type === 'switch') return `${p.label}: ${value ? 'on' : 'off'}`;
  return `${setting} ${value}`;
}

/** An address as on the wire: "5", or "bank 2 program 5". */
export const addressWords = (a: Address): string =>
  a.bank === undefined ? String(a.number) : `bank ${a.bank} program ${a.number}`;

/** Where a control stands, in words. */
export const positionWords = (at: number | boolean | null | undefined): string =>
  at === null || at === undefined
    ? 'is not set'
    : typeof at === 'number'
      ? `at ${Math.round(at)} %`
      : at
        ? 'on'
        : 'off';
