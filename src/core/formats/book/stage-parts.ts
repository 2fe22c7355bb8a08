import { endWords, jackOf } from '../../rig/find';
import { boardSvg, PLACES_LEAST } from '../board-svg';
import { type Looked, lettersFor } from '../drawn';
import type { Room } from '../pages';
import { rackSvg } from '../rack-svg';
import { stageSvg } from '../stage-svg';
import { type Block, table, words, heading } from './blocks';
import { mountedIn, panelPlan, rackSums } from '../../build';
import type { PartMaker } from './part';

/** A drawing whose letters grow where it is printed small. */
function legible(draw: (look: Looked) => string): Block {
  const svg = draw({});
  const [, width = 0, height = 0] = (/viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg) ?? []).map(Number);
  const pages = (room: Room) => [draw({ letters: lettersFor({ width, height }, room) })];
  return { is: 'drawing', svg, least: PLACES_LEAST, pages };
}

export const stage: PartMaker = {
  id: 'stage',
  title: 'Stage plot',
  wide: true,
  isThere: ({ rig }) => rig.stage !== undefined,
  blocks: ({ rig }) => [legible((look) => stageSvg(rig, look))],
};

export const inputs: PartMaker = {
  id: 'inputs',
  title: 'Input list for house and monitors',
  wide: true,
  isThere: ({ inputs }) => inputs.length > 0,
  blocks: ({ level, inputs }) => [
    table(
      [
        '#',
        'Input',
        'For',
        'Comes from',
        'Feed',
        'Stand',
        'Stereo',
        'Hears',
        'Level',
        'Peak',
        'Phantom',
      ],
      inputs.map((l, i) => [
        i + 1,
        l.name,
        l.hears,
        l.from,
        l.feed,
        l.stand || 'none',
        l.stereo,
        l.sources.join(', ') || 'nothing',
        l.quietDbu === null ? 'silent' : `${level(l.quietDbu)} to ${level(l.loudDbu)}`,
        level(l.peakDbu),
        [l.phantom, l.phantomFor].filter(Boolean).join(', '),
      ]),
      1,
    ),
  ],
};

export const boards: PartMaker = {
  id: 'boards',
  title: 'Boards',
  wide: true,
  isThere: ({ rig }) => (rig.boards?.length ?? 0) > 0,
  blocks: ({ rig, list }) => {
    const codes = new Map(list.cuts.map((c) => [c.lead.id, c.lead.label ?? c.code]));
    return rig.boards!.flatMap((b): Block[] => [
      legible((look) => boardSvg(rig, b, { ...look, codes })),
      table(
        ['Device', 'From left, mm', 'From rear, mm', 'Turned', 'Where'],
        rig.devices
          .filter((d) => d.at?.board === b.id)
          .map((d) => [
            d.name,
            d.at!.x,
            d.at!.y,
            `${d.at!.turn ?? 0}°`,
            d.at!.under ? 'under the deck' : 'on the deck',
          ]),
        0,
      ),
    ]);
  },
};

export const racks: PartMaker = {
  id: 'racks',
  title: 'Racks and panels',
  isThere: ({ rig }) => (rig.racks?.length ?? 0) > 0,
  blocks: ({ rig, list, kg }) => [
    ...rig.racks!.flatMap((r): Block[] => {
      const sums = rackSums(rig, r);
      return [
        {
          is: 'drawing',
          svg: rackSvg(rig, r),
          least: PLACES_LEAST,
          pages: () => [
            rackSvg(rig, r, { faces: ['front'] }),
            rackSvg(rig, r, { faces: ['rear'] }),
          ],
        },
        words(
          `${kg(sums.grams)}${sums.unweighed ? ` without ${sums.unweighed} not weighed` : ''}; ` +
            ('centre of gravity ' +
              (sums.centreMm === null
                ? 'not known'
                : `${Math.round(sums.centreMm)} mm above the lowest unit`) +
              `; ${Math.round(sums.watts)} W of heat.`),
        ),
        table(
          ['Units', 'Device', 'Rails', 'Deep with plugs, mm'],
          mountedIn(rig, r).map((m) => [
            m.from === m.to ? m.from : `${m.from} to ${m.to}`,
            m.device.name,
            m.rear ? 'rear' : 'front',
            m.inside,
          ]),
          1,
        ),
      ];
    }),
    ...(panelPlan(rig).length
      ? [
          heading('Panel plan'),
          table(
            ['Panel', 'Line', 'Inside lead', 'Outside lead'],
            panelPlan(rig).map((l) => {
              const lead = (id: string | undefined) => {
                const c = list.cuts.find((x) => x.lead.id === id);
                return c
                  ? `${c.code}: ${endWords(rig, c.lead.from.device === l.panel.id ? c.lead.to : c.lead.from)}`
                  : 'free';
              };
              return [
                l.panel.name,
                jackOf(l.panel, l.outside)?.label.replace(', outside', ''),
                lead(l.insideLead),
                lead(l.outsideLead),
              ];
            }),
          ),
        ]
      : []),
  ],
};
