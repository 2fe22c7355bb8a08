import { connectionOrder } from '../../analysis/connection-order';
import { endWords, nameOf } from '../../rig/find';
import { fixed, howMany } from '../../units';
import { cautionsFor } from './cautions';
import { type Block, table, words, heading } from './blocks';
import {
  billOf,
  checklist,
  cureEnds,
  gramsOf,
  plugWords,
  TWO_PERSONS_GRAMS,
  USUAL_CURE_HOURS,
} from '../../build';
import type { Device, Rig } from '../../rig/schema';
import type { PartMaker } from './part';

export const cuts: PartMaker = {
  id: 'cuts',
  title: 'Cut list',
  wide: true,
  blocks: ({ rig, length, list }) => [
    words(
      `${howMany(list.joints, 'joint')}, ${howMany(list.ties, 'tie')}, about ${fixed(list.hours)} h. ` +
        `Plugs: ${list.plugs.map((p) => `${p.count} ${plugWords(p)}`).join(', ')}. ` +
        `Stock: ${list.stock.map((s) => `${s.type} ${length(s.metres)}`).join(', ')}.`,
    ),
    table(
      ['Code', 'Plugs', 'Cut', 'Way', 'Label from', 'Label to', 'Done'],
      list.cuts.map((c) => [
        c.code,
        c.plugs
          .map((p, i) => `${p}${c.shapes[i] === 'straight' ? '' : ` ${c.shapes[i]}`}`)
          .join(' – '),
        c.made ? length(c.cut) : `bought, ${length(c.cut)}`,
        c.routed === null ? 'as entered' : length(c.routed),
        c.labels[0],
        c.labels[1],
        '',
      ]),
      0,
    ),
    ...((rig.looms ?? []).length
      ? [
          heading('Looms'),
          table(
            ['Loom', 'Leads in one sleeve', 'Mains in it'],
            rig.looms!.map((l) => [
              l.name,
              l.leads
                .flatMap((id) => list.cuts.find((c) => c.lead.id === id)?.code ?? [])
                .join(', '),
              l.mains ? 'yes' : 'no',
            ]),
          ),
        ]
      : []),
  ],
};

export const bill: PartMaker = {
  id: 'bill',
  title: 'Bill of materials',
  blocks: ({ rig, list, kg }) => [
    table(
      ['What', 'Item', 'Count', 'Weight', 'Price', 'State'],
      billOf(rig, list).map((l) => [
        l.what,
        l.item,
        `${l.count}${l.unit === 'm' ? ' m' : ''}`,
        l.grams === undefined ? '' : kg(l.grams * (l.unit === 'piece' ? l.count : 1)),
        l.price ? fixed(l.price, 0) : '',
        l.state === 'not said' ? '' : l.state,
      ]),
    ),
  ],
};

/** Whether two persons lift a thing by itself. */
const heavy = (d: Device): string =>
  (gramsOf(d) ?? 0) > TWO_PERSONS_GRAMS ? ', two persons lift' : '';

export const pack: PartMaker = {
  id: 'pack',
  title: 'Pack list and load-in order',
  blocks: ({ packing, kg }) => [
    ...packing.pieces.flatMap((p): Block[] => [
      heading(
        `${p.order}. ${p.name}, ${kg(p.grams)}` +
          (p.unweighed ? ` without ${p.unweighed} not weighed` : '') +
          `${p.lift ? ', two persons lift' : ''}`,
      ),
      {
        is: 'list',
        boxes: true,
        items: [
          ...p.devices.map(
            (d) => `${d.name}${d.gear?.serial ? `, ${d.gear.serial}` : ''}${heavy(d)}`,
          ),
          ...(p.leads.length
            ? [`leads that stay in it: ${p.leads.map((c) => c.lead.label ?? c.code).join(', ')}`]
            : []),
        ],
      },
    ]),
    ...(packing.loose.length
      ? [
          heading('In no case yet'),
          {
            is: 'list',
            boxes: true,
            items: packing.loose.map((d) => d.name + heavy(d)),
          } satisfies Block,
        ]
      : []),
    ...(packing.coiled.length
      ? [
          heading('Leads that are coiled, mains leads, spares'),
          {
            is: 'list',
            boxes: true,
            items: packing.coiled.map(
              (c) =>
                `${c.what === 'spare' ? 'spare: ' : ''}${c.count > 1 ? `${c.count} × ` : ''}${c.words}, ` +
                kg(c.count * c.grams),
            ),
          } satisfies Block,
        ]
      : []),
    words(
      `${kg(packing.grams)} in all, leads at typical grams a metre. Over 23 kg two persons lift.`,
    ),
  ],
};

export const connect: PartMaker = {
  id: 'connect',
  title: 'Safe order of connection',
  blocks: ({ rig, report, list }) => [
    ...connectionOrder(rig, report.sounds).flatMap((s, i): Block[] => [
      heading(`${i + 1}. ${s.what}`),
      words(s.why),
      {
        is: 'list',
        boxes: true,
        items: [
          ...s.devices.map((d) => nameOf(rig, d)),
          ...s.leads.flatMap((id) => {
            const lead = rig.leads.find((l) => l.id === id);
            if (!lead) return [];
            const code = list.cuts.find((c) => c.lead.id === id)?.code;
            const ends = `${endWords(rig, lead.from)} to ${endWords(rig, lead.to)}`;
            return [code === undefined ? ends : `${lead.label ?? code}: ${ends}`];
          }),
        ],
      },
    ]),
  ],
};

/** When adhesive has set: at a time where the clock was started, else so many hours after. */
function cureWords(rig: Rig): string {
  const hours = rig.done?.cureHours ?? USUAL_CURE_HOURS;
  const ends = cureEnds(rig);
  const when =
    ends === undefined
      ? `${hours} h after the last pedal was fastened: ______ (time)`
      : `${new Date(ends).toISOString().slice(0, 16).replace('T', ' ')} UTC`;
  return `Not before the adhesive has set, ${when}. The packet says how long it takes.`;
}

export const checklistPart: PartMaker = {
  id: 'checklist',
  title: 'Checklist of the build',
  blocks: ({ rig, done }) =>
    checklist(rig).flatMap((p): Block[] => [
      heading(p.title),
      ...(p.afterCure ? [words(cureWords(rig))] : []),
      {
        is: 'list',
        boxes: true,
        items: p.steps.map((s) => {
          const tick = done.get(s.id);
          return s.words + (tick ? ` (done: ${tick.by}, ${tick.at.slice(0, 10)})` : '');
        }),
      },
    ]),
};

export const cautions: PartMaker = {
  id: 'cautions',
  title: 'Cautions',
  blocks: ({ rig, report }) => [
    { is: 'list', items: cautionsFor(rig, report).map((c) => `${c.title}. ${c.words}`) },
    words('Local codes and licensed practice come before anything printed here.'),
  ],
};
