import { connectionOrder } from '../analysis/connection-order';
import type { Report } from '../report/report';
import {
  billOf,
  budgetOf,
  checkCountries,
  checklist,
  cutList,
  gramsOf,
  inputList,
  loadsOf,
  mainsSums,
  mountedIn,
  packingOf,
  panelPlan,
  powerLeadsByPlugs,
  rackSums,
  TWO_PERSONS_GRAMS,
  unfed,
} from '../build';
import { CAUTIONS } from '../findings/cautions';
import { SEVERITIES } from '../findings/finding';
import { kindOf } from '../kinds';
import { bytesOf, hex, messageWords, setStage } from '../midi';
import { endWords, jackOf, nameOf } from '../rig/find';
import type { Rig } from '../rig/schema';
import { clockTime, cueSheet, meterWords, runningOrder } from '../songs';
import { fixed, showLength, showLevel, type UnitChoice } from '../units';
import { boardSvg, rackSvg, stageSvg } from './build-svg';
import { walkSvg, wiringSvg } from './svg';

/** What a page of the book is made of, whatever prints it. */
export type Block =
  | { is: 'words'; words: string }
  | { is: 'heading'; words: string }
  | { is: 'list'; items: string[]; ordered?: boolean; boxes?: boolean }
  | { is: 'table'; head: string[]; rows: string[][]; bold?: number }
  | { is: 'drawing'; svg: string };

/** One part of the book, printable alone. `wide` lies across. */
export interface BookPart {
  id: string;
  title: string;
  wide?: boolean;
  blocks: Block[];
}

/** Which cautions apply to a rig. */
export function cautionsFor(rig: Rig, report: Pick<Report, 'sounds'>): typeof CAUTIONS {
  const speakers = report.sounds.flatMap((s) => s.speakers);
  const { takers } = mainsSums(rig, 230);
  const made = cutList(rig).joints > 0;
  const applies: Record<string, boolean> = {
    mains: takers.length > 0,
    tubes: speakers.some((l) => l.tube),
    speakers: speakers.length > 0,
    hearing: report.sounds.some((s) => s.destinations.length > 0),
    radio: rig.devices.some(
      (d) => kindOf(d.kind).job === 'wireless' || kindOf(d.kind).destination?.hears === 'in-ears',
    ),
    lifting:
      packingOf(rig).pieces.some((p) => p.lift) ||
      rig.devices.some((d) => (gramsOf(d) ?? 0) > TWO_PERSONS_GRAMS),
    solder: made,
    phantom: inputList(rig, report.sounds).length > 0,
  };
  return CAUTIONS.filter((c) => applies[c.id] ?? true);
}

const table = (
  head: string[],
  rows: (string | number | null | undefined)[][],
  bold?: number,
): Block => ({
  is: 'table',
  head,
  rows: rows.map((r) => r.map((c) => (c === null || c === undefined ? '' : String(c)))),
  ...(bold !== undefined && { bold }),
});
const words = (text: string): Block => ({ is: 'words', words: text });
const heading = (text: string): Block => ({ is: 'heading', words: text });

/**
 * Everything about a rig on paper, part by part, in the order in which a rig is read. Made from the
 * rig and its report alone.
 */
export function bookOf(
  rig: Rig,
  report: Report,
  units: UnitChoice = { level: 'dBu', length: 'metric' },
): BookPart[] {
  const level = (x: number | null) => showLevel(x, units.level);
  const length = (m: number) => showLength(m, units.length);
  const stage = setStage(rig);
  const list = cutList(rig);
  const findings = [...report.findings].sort(
    (a, b) => SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity),
  );
  const open = findings.filter((f) => f.accepted === undefined);
  // The document is a step ahead of its figures while they are worked out.
  const whole = report.sounds.filter(
    (s) =>
      s.stations.every((x) => rig.devices.some((d) => d.id === x.device)) &&
      s.steps.every((x) => x.leads.every((l) => rig.leads.some((y) => y.id === l))),
  );
  const inputs = inputList(rig, report.sounds);
  const packing = packingOf(rig);
  const kg = (grams: number) => `${fixed(grams / 1000)} kg`;
  const done = new Map((rig.done?.ticks ?? []).map((t) => [t.id, t]));
  const mains = mainsSums(rig, 230);
  const budget = budgetOf(rig, list);
  const parts: (BookPart | false)[] = [
    {
      id: 'summary',
      title: 'Summary and promises',
      blocks: [
        words(
          `${rig.devices.filter((d) => d.host === undefined).length} ` +
            `devices, ${list.cuts.length} leads, ${rig.sounds.length} ` +
            `sounds, ${(rig.songs ?? []).length} songs. Open ` +
            `findings: ${SEVERITIES.map((s) => `${open.filter((f) => f.severity === s).length} ${s}`).join(', ')}.`,
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
    },
    rig.stage !== undefined && {
      id: 'stage',
      title: 'Stage plot',
      wide: true,
      blocks: [{ is: 'drawing', svg: stageSvg(rig) }],
    },
    inputs.length > 0 && {
      id: 'inputs',
      title: 'Input list for house and monitors',
      wide: true,
      blocks: [
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
            l.phantom,
          ]),
          1,
        ),
      ],
    },
    {
      id: 'walks',
      title: 'Signal route of each sound',
      wide: true,
      blocks: whole.map((s): Block => ({ is: 'drawing', svg: walkSvg(rig, s) })),
    },
    {
      id: 'wiring',
      title: 'Wiring',
      wide: true,
      blocks: [
        { is: 'drawing', svg: wiringSvg(rig) },
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
    },
    (rig.boards?.length ?? 0) > 0 && {
      id: 'boards',
      title: 'Boards',
      wide: true,
      blocks: rig.boards!.flatMap((b): Block[] => [
        { is: 'drawing', svg: boardSvg(rig, b) },
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
      ]),
    },
    (rig.racks?.length ?? 0) > 0 && {
      id: 'racks',
      title: 'Racks and panels',
      blocks: [
        ...rig.racks!.flatMap((r): Block[] => {
          const sums = rackSums(rig, r);
          return [
            { is: 'drawing', svg: rackSvg(rig, r) },
            words(
              `${kg(sums.grams)}${sums.unweighed ? ` without ${sums.unweighed} not weighed` : ''}; ` +
                `centre of gravity ${sums.centreMm === null ? 'not known' : `${Math.round(sums.centreMm)} mm above the lowest unit`}; ${Math.round(sums.watts)} W of heat.`,
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
    },
    {
      id: 'power',
      title: 'Power plan',
      blocks: [
        ...(loadsOf(rig).length
          ? [
              table(
                ['Supply', 'Outlet', 'Volts', 'Feeds', 'Load', 'Gives'],
                loadsOf(rig).map((l) => [
                  l.place.supply.name,
                  l.place.outlet.label,
                  `${l.volts} V${l.place.outlet.ac ? ' AC' : ''}`,
                  l.takers.map((t) => t.device.name).join(', ') || 'nothing',
                  `${l.milliamps} mA`,
                  `${l.place.outlet.milliamps} mA`,
                ]),
              ),
            ]
          : [words('There is no supply in this rig.')]),
        ...powerLeadsByPlugs(rig).map(({ plugs, leads }) =>
          words(
            `Leads ${plugs}: ${leads.map((l) => `${l.device.name}${l.metres === null ? '' : ` ${length(l.metres)}`}`).join(', ')}.`,
          ),
        ),
        ...(unfed(rig).length
          ? [
              words(
                `Without an outlet: ${unfed(rig)
                  .map((t) => t.device.name)
                  .join(', ')}.`,
              ),
            ]
          : []),
        heading('Mains'),
        words(
          `${Math.round(mains.watts)} W in all, ${fixed(mains.amps)} A at 230 V. Straight to ` +
            `the wall: ${mains.wall.map((d) => d.name).join(', ') || 'nothing'}.`,
        ),
        ...mains.strips.map((s) =>
          words(
            `${s.device.name}: ${s.feeds.length} of ${s.outlets} sockets ` +
              `(${s.feeds.map((d) => d.name).join(', ') || 'nothing'}), ${Math.round(s.watts)} W.`,
          ),
        ),
        ...(checkCountries(rig).length
          ? [
              table(
                ['Country', 'Mains', 'Plugs', 'Draws', 'Does not bear it'],
                checkCountries(rig).map((c) => [
                  c.country.name,
                  `${c.country.volts} V, ${c.country.hz.join(' and ')} Hz`,
                  c.country.plugs,
                  `${fixed(c.amps)} A`,
                  c.wrong.map((w) => w.device.name).join(', ') || 'nothing',
                ]),
              ),
            ]
          : []),
      ],
    },
    {
      id: 'midi',
      title: 'MIDI chart',
      blocks: [
        table(
          ['Sound', 'Sent by', 'For', 'Bytes', 'Means'],
          stage.orders.scenes.flatMap((s) =>
            [...stage.orders.commands(s).values()]
              .flat()
              .map((c) => [
                s.name,
                nameOf(rig, c.from),
                c.to ? nameOf(rig, c.to) : '',
                hex(bytesOf(c.message)),
                messageWords(c.message),
              ]),
          ),
        ),
      ],
    },
    (rig.sets?.length ?? 0) > 0 && {
      id: 'sets',
      title: 'Sets',
      blocks: rig.sets!.flatMap((set): Block[] => [
        heading(`${set.name}${set.starts ? `, ${set.starts}` : ''}`),
        table(
          ['#', 'Song', 'Before it', 'Begins', 'Tempo', 'Key', 'Tuning'],
          runningOrder(rig, set).lines.map((l, i) => [
            i + 1,
            l.song?.title ?? l.entry.song,
            [l.changeover.words, l.entry.notes].filter(Boolean).join('. '),
            l.clock ?? clockTime(l.startsAt * 1000),
            l.song?.bpm,
            l.song?.key,
            l.song?.tuning,
          ]),
          1,
        ),
      ]),
    },
    (rig.songs?.length ?? 0) > 0 && {
      id: 'cues',
      title: 'Cue sheets',
      blocks: rig.songs!.flatMap((song): Block[] => [
        heading(
          `${song.title}: ${song.bpm} bpm, ${meterWords(song.meter)}${song.key ? `, ${song.key}` : ''}`,
        ),
        table(
          ['Bar', 'Time', 'Section', 'Bars', 'Sound', 'Programs', 'Notes'],
          cueSheet(rig, song).map((c) => [
            c.bar,
            clockTime(c.atMs),
            c.section,
            c.bars,
            c.sound,
            c.programs,
            c.notes,
          ]),
        ),
      ]),
    },
    {
      id: 'cuts',
      title: 'Cut list',
      wide: true,
      blocks: [
        words(
          `${list.joints} joints, ${list.ties} ties, about ${fixed(list.hours)} h. ` +
            `Plugs: ${list.plugs.map((p) => `${p.count} ${p.plug}`).join(', ')}. ` +
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
    },
    {
      id: 'bill',
      title: 'Bill of materials',
      blocks: [
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
    },
    {
      id: 'pack',
      title: 'Pack list and load-in order',
      blocks: [
        ...packing.pieces.flatMap((p): Block[] => [
          heading(
            `${p.order}. ${p.name}, ${kg(p.grams)}${p.unweighed ? ` without ${p.unweighed} not weighed` : ''}${p.lift ? ', two persons lift' : ''}`,
          ),
          {
            is: 'list',
            boxes: true,
            items: p.devices.map((d) => `${d.name}${d.gear?.serial ? `, ${d.gear.serial}` : ''}`),
          },
        ]),
        ...(packing.loose.length
          ? [
              heading('In no case yet'),
              { is: 'list', boxes: true, items: packing.loose.map((d) => d.name) } satisfies Block,
            ]
          : []),
      ],
    },
    {
      id: 'connect',
      title: 'Safe order of connection',
      blocks: [
        {
          is: 'list',
          ordered: true,
          items: connectionOrder(rig, report.sounds).map(
            (s) =>
              `${s.what}. ${s.why} ${s.devices.map((d) => nameOf(rig, d)).join(', ')}${s.leads
                .map((id) => rig.leads.find((l) => l.id === id))
                .filter((l) => l !== undefined)
                .map((l) => `; ${endWords(rig, l.from)} to ${endWords(rig, l.to)}`)
                .join('')}`,
          ),
        },
      ],
    },
    {
      id: 'checklist',
      title: 'Checklist of the build',
      blocks: checklist(rig).flatMap((p): Block[] => [
        heading(p.title),
        {
          is: 'list',
          boxes: true,
          items: p.steps.map(
            (s) =>
              `${s.words}${done.has(s.id) ? ` (done: ${done.get(s.id)!.by}, ${done.get(s.id)!.at.slice(0, 10)})` : ''}`,
          ),
        },
      ]),
    },
    {
      id: 'cautions',
      title: 'Cautions',
      blocks: [
        { is: 'list', items: cautionsFor(rig, report).map((c) => `${c.title}. ${c.words}`) },
        words('Local codes and licensed practice come before anything printed here.'),
      ],
    },
    {
      id: 'findings',
      title: 'Findings',
      blocks: [
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
    },
  ];
  return parts.filter((p): p is BookPart => p !== false);
}
