import { openCounts } from '../../findings/finding';
import { endWords } from '../../rig/find';
import { fixed, howMany } from '../../units';
import { WALK_LEAST, walkPages, walkSvg } from '../walk-svg';
import { WIRING_LEAST, wiringPages, wiringSvg } from '../wiring-svg';
import { type Block, table, words, heading } from './blocks';
import type { PartMaker } from './part';

export const summary: PartMaker = {
  id: 'summary',
  title: 'Summary and promises',
  blocks: ({ rig, report, list, open, kg, budget }) => [
    words(
      `${howMany(rig.devices.filter((d) => d.host === undefined).length, 'device')}, ` +
        `${howMany(list.cuts.length, 'lead')}, ${howMany(rig.sounds.length, 'sound')}, ` +
        `${howMany((rig.songs ?? []).length, 'song')}. Open ` +
        `findings: ${openCounts(open)}.`,
    ),
    ...(rig.notes ? [words(rig.notes)] : []),
    ...(report.promises.length
      ? [
          heading('Promises'),
          {
            is: 'list',
            items: report.promises.map(
              (p) =>
                `${p.kept ? 'Kept' : 'BROKEN'}: ${p.words}.${p.breaches[0] ? ` ${p.breaches[0].why}` : ''}`,
            ),
          } satisfies Block,
        ]
      : []),
    heading('Figures against limits'),
    table(
      ['', 'Is', 'Limit', ''],
      budget.map((b) => [
        b.label,
        b.unit === 'g' ? kg(b.value) : `${fixed(b.value, b.unit === 'h' ? 1 : 0)} ${b.unit}`,
        b.limit === undefined
          ? 'none set'
          : b.unit === 'g'
            ? kg(b.limit)
            : `${fixed(b.limit, 0)} ${b.unit}`,
        b.over > 0
          ? `over by ${b.unit === 'g' ? kg(b.over) : `${fixed(b.over, 1)} ${b.unit}`}`
          : (b.note ?? ''),
      ]),
    ),
  ],
};

export const walks: PartMaker = {
  id: 'walks',
  title: 'Signal route of each sound',
  wide: true,
  blocks: ({ rig, whole }) =>
    whole.map((s): Block => ({
      is: 'drawing',
      svg: walkSvg(rig, s),
      least: WALK_LEAST,
      pages: (room) => walkPages(rig, s, room),
    })),
};

export const wiring: PartMaker = {
  id: 'wiring',
  title: 'Wiring',
  wide: true,
  blocks: ({ rig, length, list }) => [
    {
      is: 'drawing',
      svg: wiringSvg(rig),
      least: WIRING_LEAST,
      pages: (room) => wiringPages(rig, room),
    },
    table(
      ['Code', 'From', 'To', 'Type', 'Has', 'Way'],
      list.cuts.map((c) => [
        c.code,
        endWords(rig, c.lead.from),
        endWords(rig, c.lead.to),
        c.lead.type,
        length(c.metres),
        c.routed === null ? '' : length(c.routed),
      ]),
      0,
    ),
  ],
};

export const findings: PartMaker = {
  id: 'findings',
  title: 'Findings',
  blocks: ({ findings, open }) => [
    ...(open.length
      ? [
          heading('Open'),
          {
            is: 'list',
            items: open.map((f) => `${f.severity}: ${f.what} ${f.why}`),
          } satisfies Block,
        ]
      : [words('No finding is open.')]),
    ...(findings.length > open.length
      ? [
          heading('Accepted, with the reason'),
          {
            is: 'list',
            items: findings
              .filter((f) => f.accepted !== undefined)
              .map((f) => `${f.severity}: ${f.what} Accepted: ${f.accepted}`),
          } satisfies Block,
        ]
      : []),
  ],
};
