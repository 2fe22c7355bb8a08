import type { Remark } from '../findings/finding';
import { voltsIn, inSentence } from './countries';
import { type CountryCheck, type CountryWrong, mainsOf } from './mains';
import { allOf, anyOf } from '../units';

/** What to say of something that is wrong in a country. */
export function countryRemark(
  { country }: CountryCheck,
  { device, what, volts }: CountryWrong,
): Remark {
  const told = {
    rule: `mains-${what}` as const,
    subjects: [device.id],
    about: `${device.id} ${country.code}`,
  };
  const need = mainsOf(device);
  if (what === 'plug')
    return {
      ...told,
      severity: 'advice',
      what: `The plug of ${device.name} goes into no socket in ${inSentence(country)}.`,
      why:
        `It has plug ${device.mains?.plug}; there they have ${country.plugs}. An adapter has to ` +
        'carry the protective earth.',
    };
  if (what === 'selector')
    return {
      ...told,
      severity: 'caution',
      what: `Nobody has said how the voltage selector of ${device.name} is set.`,
      why: `In ${inSentence(country)} they have ${anyOf(voltsIn(country))} V. Look before it is plugged in.`,
    };
  const misfit = {
    ...told,
    what: `${device.name} is not made for the mains in ${inSentence(country)}.`,
  };
  if (what === 'hz')
    return {
      ...misfit,
      severity: 'fault',
      why: `It takes ${anyOf(need?.hz ?? [])} Hz; there they have ${allOf(country.hz)} Hz.`,
    };
  const setTo = device.mains?.setTo;
  const takes = anyOf((need?.volts ?? []).map(([a, b]) => (a === b ? `${a}` : `${a} to ${b}`)));
  return {
    ...misfit,
    ...(setTo !== undefined && {
      what: `${device.name} is set to ${setTo} V, which is not the mains in ${inSentence(country)}.`,
    }),
    severity: what === 'over' ? 'danger' : 'fault',
    why:
      `It takes ${takes} V; there they have ${volts} V. ` +
      (what === 'over'
        ? 'Too much destroys it and can start a fire.'
        : 'Too little and it does not work as it should.') +
      ' Setting it otherwise is work for a licensed technician.',
  };
}

/** Countries of the tour of which nothing is known. */
export const unknownRemark = (code: string): Remark => ({
  rule: 'mains-unknown',
  severity: 'advice',
  subjects: [],
  about: code,
  what: `Nothing is known of the mains in “${code}”.`,
  why: 'No country with that code is listed, so nothing was held against its mains. Look it up.',
});
