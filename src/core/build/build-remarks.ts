import { at as entryAt, sure } from '../outcome';
import { fixes, type Remark } from '../findings/finding';
import { deviceOf, endWords } from '../rig/find';
import type { Board, Device, Rack, Rig } from '../rig/schema';
import { BoardMoves } from './board-moves';
import { clashWords } from './board-words';
import { boardModel, placesNow } from './board-model';
import { type BudgetLine, overLimits } from './bill';
import { makingOf, type CutList, cutList } from './cut-list';
import { TWO_PERSONS_GRAMS } from './gear';
import { voltsIn } from './countries';
import { checkCountries, mainsSums, unknownCountries } from './mains';
import { pressedDevices } from './pressed';
import { panelPlan, type RackClash, rackClashes, rackSums, UNIT_MM } from './rack';
import { rackMoves } from './rack-moves';
import { countryRemark, unknownRemark } from './country-remarks';
import { howMany } from '../units';

/** What is wrong with how the rig is laid out, mounted, cut and plugged into the mains, by what it is about. */
export const BUILD_REMARKS = {
  mains: mainsRemarks,
  boards: (rig: Rig) => (rig.boards ?? []).flatMap((b) => boardRemarks(rig, b)),
  racks: (rig: Rig) => (rig.racks ?? []).flatMap((r) => rackRemarks(rig, r)),
  leads: (rig: Rig) =>
    rig.boards?.length || rig.racks?.length || rig.stage ? leadRemarks(rig, cutList(rig)) : [],
  limits: (rig: Rig) => (rig.limits ? overLimits(rig).map(overRemark) : []),
};

/** All of it, dangers first. */
export const buildRemarks = (rig: Rig): Remark[] =>
  Object.values(BUILD_REMARKS).flatMap((look) => look(rig));

/** A limit that was set in the brief and is not kept. */
function overRemark(b: BudgetLine): Remark {
  const shown = (v: number) =>
    b.unit === 'g' ? `${(v / 1000).toFixed(1)} kg` : `${Number(v.toFixed(1))} ${b.unit}`.trim();
  return {
    rule: 'limit',
    severity: 'caution',
    subjects: [],
    about: b.id,
    what: `${b.label}: over the limit by ${shown(b.over)}.`,
    why: `It comes to ${shown(b.value)}; the brief allows ${shown(b.limit!)}.`,
  };
}

function boardRemarks(rig: Rig, board: Board): Remark[] {
  const model = boardModel(rig, board, pressedDevices(rig));
  if (!model.items.length) return [];
  const moves = new BoardMoves(board, model, placesNow(model));
  return moves.clashes.map((c): Remark => {
    const subjects = [...new Set([c.a, c.b])]
      .filter((i) => i >= 0)
      .map((i) => entryAt(model.items, i).device.id);
    return {
      rule: `board-${c.what}`,
      subjects,
      about: `${subjects.join(' ')} ${c.jack ?? ''}`,
      ...clashWords(model, c),
      ...fixes(moves.waysOut(c)),
    };
  });
}

/** What is wrong with a rack: what hits something, what gets pulled, and what it weighs. */
const rackRemarks = (rig: Rig, rack: Rack): Remark[] => [
  ...rackClashes(rig, rack).map((clash): Remark => ({
    rule: `rack-${clash.what}`,
    subjects: [clash.a.device.id, ...(clash.b ? [clash.b.device.id] : [])],
    about: [clash.a.device.id, ...(clash.b ? [clash.b.device.id] : [])].join(' '),
    ...rackClashWords(rack, clash),
    ...fixes(rackMoves(rig, rack, clash)),
  })),
  ...pulledRemark(rig, rack),
  ...weightRemarks(rig, rack),
];

function rackClashWords(
  rack: Rack,
  { what, a, b, mm }: RackClash,
): Pick<Remark, 'severity' | 'what' | 'why'> {
  const [one, two] = [a.device.name, b?.device.name ?? ''];
  const by = `${Math.ceil(mm)} mm`;
  switch (what) {
    case 'overlap':
      return {
        severity: 'fault',
        what: `${one} and ${two} take the same room in ${rack.name}.`,
        why: mm
          ? `Front and rear together are ${by} deeper than the rack.`
          : 'Both want the same units.',
      };
    case 'too-high':
      return {
        severity: 'fault',
        what: `${one} goes over the top of ${rack.name}.`,
        why: `It has ${howMany(rack.units, 'unit')}; ${by} too few.`,
      };
    case 'too-deep':
      return {
        severity: 'fault',
        what: `${one} is too deep for ${rack.name}.`,
        why:
          `${a.depth} mm${a.plugs ? ` and ${a.plugs} mm of plug` : ''} in ${rack.depth} mm: ` +
          `${by} too much.`,
      };
    case 'too-wide':
      return {
        severity: 'fault',
        what: `${one} sticks out of its shelf.`,
        why: `By ${by}; between the rails there are 450 mm.`,
      };
    case 'heat':
      return {
        severity: 'caution',
        what: `${one} cannot let its heat out.`,
        why: `It vents upwards and ${two} sits right above it.`,
      };
    case 'access':
      return {
        severity: 'caution',
        what: `${one} is touched, and it is mounted at the rear.`,
        why: 'What is set or read belongs on the front rails.',
      };
  }
}

/** Leads from outside that go straight into gear, and not into a panel. */
function pulledRemark(rig: Rig, rack: Rack): Remark[] {
  const panels = new Set(panelPlan(rig).map((l) => l.panel.id));
  const isIn = (d: Device) => d.rack?.rack === rack.id;
  const pulled = rig.leads
    .filter((l) => l.type !== 'air' && l.type !== 'inside')
    .flatMap((l) => {
      const ends = [l.from, l.to].map((e) => sure(deviceOf(rig, e.device)));
      const inside = ends.filter(isIn);
      return inside.length === 1 ? inside : [];
    })
    .filter((d) => !panels.has(d.id));
  if (!pulled.length) return [];
  const [leads, go] = pulled.length === 1 ? ['lead', 'goes'] : ['leads', 'go'];
  const names = [...new Set(pulled.map((d) => d.name))].slice(0, 4).join(', ');
  return [
    {
      rule: 'rack-pulled',
      severity: 'advice',
      subjects: [...new Set(pulled.map((d) => d.id))],
      about: rack.id,
      what: `${pulled.length} ${leads} from outside ${go} straight into gear in ${rack.name}.`,
      why: `What gets pulled is then the jack of ${names}, and not one of a panel.`,
    },
  ];
}

function weightRemarks(rig: Rig, rack: Rack): Remark[] {
  const { centreMm, grams } = rackSums(rig, rack);
  const half = (rack.units * UNIT_MM) / 2;
  const told = { severity: 'advice' as const, subjects: [], about: rack.id };
  const remarks: Remark[] = [];
  if (centreMm !== null && centreMm > half + 1)
    remarks.push({
      ...told,
      rule: 'rack-top-heavy',
      what: `${rack.name} is top-heavy.`,
      why:
        `Its centre of gravity is ${Math.round(centreMm)} mm up, above the middle ` +
        `(${Math.round(half)} mm). Heavy things go low.`,
    });
  if (grams > TWO_PERSONS_GRAMS)
    remarks.push({
      ...told,
      rule: 'rack-lift',
      what: `${rack.name} takes two persons to lift.`,
      why:
        `It weighs ${(grams / 1000).toFixed(1)} kg; over about 23 kg two ` +
        `lift${rack.wheels ? ', and it rolls' : ', and wheels help'}.`,
    });
  return remarks;
}

/** Leads that do not reach where they have to go, and those that only just do. */
export function leadRemarks(rig: Rig, list: CutList): Remark[] {
  const { slack } = makingOf(rig);
  return list.cuts.flatMap((c): Remark[] => {
    if (c.routed === null) return [];
    const words = `${c.code} from ${endWords(rig, c.lead.from)} to ${endWords(rig, c.lead.to)}`;
    const fix = {
      words: `Make it ${c.cut.toFixed(2)} m`,
      edits: [{ edit: 'setLead' as const, lead: c.lead.id, metres: Number(c.cut.toFixed(3)) }],
    };
    const subjects = [c.lead.id, c.lead.from.device, c.lead.to.device];
    if (c.short > 0.001)
      return [
        {
          rule: 'lead-short',
          severity: 'fault',
          subjects,
          about: c.lead.id,
          what: `${words} is too short by ${(c.short * 100).toFixed(0)} cm.`,
          why: `It is ${c.metres.toFixed(2)} m long, and its way is ${c.routed.toFixed(2)} m (${c.how}).`,
          fix,
        },
      ];
    if (c.metres < c.routed + 2 * slack - 0.001)
      return [
        {
          rule: 'lead-tight',
          severity: 'caution',
          subjects,
          about: c.lead.id,
          what: `${words} only just reaches.`,
          why:
            `It is ${c.metres.toFixed(2)} m long, its way is ${c.routed.toFixed(2)} m, ` +
            `and ${(slack * 100).toFixed(0)} cm of slack are wanted at each end.`,
          fix,
        },
      ];
    return [];
  });
}

function mainsRemarks(rig: Rig): Remark[] {
  const strips = mainsSums(rig, 230).strips;
  const checks = checkCountries(rig);
  const lowest = Math.min(230, ...checks.flatMap((c) => voltsIn(c.country)));
  return [
    ...checks.flatMap((check) => check.wrong.map((wrong) => countryRemark(check, wrong))),
    ...unknownCountries(rig).map(unknownRemark),
    ...strips.flatMap((s): Remark[] => [
      ...(s.plugs > s.outlets
        ? [
            {
              rule: 'mains-sockets' as const,
              severity: 'fault' as const,
              subjects: [s.device.id],
              about: s.device.id,
              what: `${s.device.name} has too few sockets.`,
              why: `It has ${s.outlets} for ${howMany(s.plugs, 'plug')}.`,
            },
          ]
        : []),
      ...(s.watts / lowest > s.gives
        ? [
            {
              rule: 'mains-amps' as const,
              severity: 'fault' as const,
              subjects: [s.device.id],
              about: s.device.id,
              what: `${s.device.name} carries more than it is made for.`,
              why:
                `${Math.round(s.watts)} W are ${(s.watts / lowest).toFixed(1)} A at ${lowest} V; ` +
                `its sockets give ${s.gives} A together.`,
            },
          ]
        : []),
    ]),
  ];
}
