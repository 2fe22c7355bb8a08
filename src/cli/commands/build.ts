import { fixed, howMany } from '../../core/units';
import { buildJson } from '../build-json';
import { command } from '../command';

export const build = command({
  name: 'build',
  about: 'leads with their ways and lengths, boards, racks, mains, cases, figures against limits',
  options: [],
  run: (rig) => {
    const json = buildJson(rig);
    return {
      json,
      lines: [
        `${howMany(json.leads.length, 'lead')}, ${howMany(json.joints, 'joint')}, about ${json.hours} h`,
        ...json.leads.flatMap((l) => (l.shortM ? [`${l.code} is too short by ${l.shortM} m`] : [])),
        ...json.boards.map(
          (b) =>
            `${b.name}: ${howMany(b.devices, 'device')}, ${b.leadM} m of lead, ${howMany(b.crossings, 'crossing')}, ` +
            `${b.clashes.length} to put right`,
        ),
        ...json.racks.map(
          (r) =>
            `${r.name}: ${fixed(r.grams / 1000)} kg, ${r.used} U, ` +
            `${r.clashes.length} to put right`,
        ),
        ...json.cases.map((c) => {
          const lift = c.lift ? ', two persons lift' : '';
          return `${c.order}. ${c.name}: ${fixed(c.grams / 1000)} kg${lift}`;
        }),
      ],
    };
  },
});
