import { sure } from '../../outcome';
import {
  conductorsOf,
  type DeviceState,
  type Figure,
  type Jack,
  type Kind,
  kindOf,
  type Loop,
  type Parameter,
  type Pass,
  type Plugged,
  type Point,
  type SettingValue,
  type TempoTable,
} from '../../kinds';
import { alongCurve } from '../../units';
import { boxOf, withSheetFigure } from './box-of';
import type { Assembly, BoxControl, InnerJack } from './sheet-schema';

type Part = Assembly['parts'][number];

/** An inner point, as the box knows it. No jack has a stroke in its id, so that none is taken for one. */
const inner = (part: string, point: Point): Point => `${part}/${point}`;

/** A figure of a part, as the box knows it. */
export const innerFigure = (part: string, figure: string): string => `${part}-${figure}`;

const jackAt = ({ part, jack }: InnerJack, parts: ReadonlyMap<string, Kind>): Jack =>
  sure(sure(parts.get(part)).jacks.find((j) => j.id === jack));

/**
 * The kind that an assembly describes. The idea: a device is a set of passes between points, and so
 * is a box of devices: those of its parts, their points marked with the part, joined by wires that
 * cost nothing, and the jacks of the box joined to the inner jacks that they are tied to. Whatever
 * reads passes (circuit, walk, ground) then sees the inside without knowing of boxes, and whatever
 * speaks of devices speaks of the box.
 */
export function assembledKind(id: string, sheet: Assembly): Kind {
  const parts = new Map(sheet.parts.map((p) => [p.id, kindOf(p.kind)]));
  const jacks = sheet.jacks.map((j) => outerJack(j, sheet, parts));
  const loops = loopsOf(sheet, parts);
  const ofLoops = new Set(loops.flatMap((l) => [...l.send, ...l.return]));
  const ways = jacks.filter((j) => !ofLoops.has(j.id));
  /** The jack that the way through a part ends at, else any for sound. */
  const wayOf = (end: 'in' | 'out', against: Jack['direction']): Jack | undefined => {
    const able = ways.filter((j) => j.direction !== against);
    const isThrough = ({ part, jack }: InnerJack) => parts.get(part)?.through?.[end] === jack;
    return (
      able.find((j) => tiesOf(sheet, j.id).some(isThrough)) ??
      able.find((j) => j.signal === 'audio')
    );
  };
  const [first, last] = [wayOf('in', 'out'), wayOf('out', 'in')];
  const firstKind = first && parts.get(sure(tiesOf(sheet, first.id)[0]).part);
  const figures = figuresOf(sheet, parts);
  const parameters = sheet.controls.map((c) => parameterOf(c, parts));
  const tempos = temposOf(sheet, parts);
  const takes = sheet.parts.flatMap((p) => sure(parts.get(p.id)).power ?? []);
  const main = sure(parts.get(mainPart(sheet).id));
  const inside: Kind = {
    id,
    name: sheet.name,
    family: 'Own gear',
    job: main.job,
    about: `One box with ${sheet.parts.map((p) => p.name).join(', ')} in it.`,
    jacks,
    figures,
    parameters,
    ...(first && last && { through: { in: first.id, out: last.id } }),
    ...(firstKind?.wantsBarePickup && { wantsBarePickup: true }),
    ...(firstKind?.tracksPitch && { tracksPitch: true }),
    ...earthOf(sheet, parts),
    ...(!sheet.parts.some(followsBox) && { alwaysOn: true }),
    ...(takes.length && {
      power: {
        ...sure(takes[0]),
        volts: Math.max(...takes.map((t) => t.volts)),
        milliamps: takes.reduce((sum, t) => sum + t.milliamps, 0),
      },
    }),
    ...(main.size && { size: main.size }),
    ...(main.stands && { stands: main.stands }),
    ...(tempos[0] && { tempo: tempos[0] }),
    ...(tempos.length > 1 && { moreTempos: tempos.slice(1) }),
    ...(loops.length > 0 && { loops }),
    ...(sheet.midi?.programs && { programs: true }),
    passes: () => [],
  };
  return {
    ...boxOf(sheet, inside),
    id,
    passes: (state, plugged) => passesInside(sheet, parts, state, plugged),
  };
}

/** The jack by which the chassis hangs on protective earth: that of a part which is earthed, or any on the mains. */
function earthOf(sheet: Assembly, parts: ReadonlyMap<string, Kind>): Pick<Kind, 'earth'> {
  const earthed = sheet.jacks.find((j) =>
    j.at.some(({ part, jack }) => parts.get(part)?.earth === jack),
  );
  const earth = earthed?.id ?? (sheet.mains && sheet.jacks[0]?.id);
  return earth === undefined ? {} : { earth };
}

/**
 * The part that gives the box its character: the first that does more than lead signal on, those that
 * are switched with the box before the others; where all of it only leads on, the first.
 */
function mainPart(sheet: Assembly): Part {
  const shaping = sheet.parts.filter((p) => kindOf(p.kind).family !== 'Routing');
  const among = shaping.length ? shaping : sheet.parts;
  return among.find(followsBox) ?? sure(among[0]);
}

const followsBox = (p: Part): boolean => (p.engaged ?? 'box') === 'box';

const tiesOf = (sheet: Assembly, jack: string): InnerJack[] =>
  sheet.jacks.find((j) => j.id === jack)?.at ?? [];

/** A jack of the box: what the first inner jack is that it is tied to, under its own name. */
function outerJack(
  said: Assembly['jacks'][number],
  sheet: Assembly,
  parts: ReadonlyMap<string, Kind>,
): Jack {
  const tied = sure(said.at[0]);
  const of = jackAt(tied, parts);
  const { pair, stereo, insert, channels: _channels, inside: _inside, faces: _faces, ...rest } = of;
  const partner =
    pair && sheet.jacks.find((j) => j.at.some((t) => t.part === tied.part && t.jack === pair.with));
  const own = said.pair ?? (partner && pair && { ...pair, with: partner.id });
  return {
    ...rest,
    id: said.id,
    label: said.label,
    ...(own && { pair: own }),
    ...(stereo && { stereo: `${said.id}-ring` }),
    ...(insert && { insert: `${said.id}-ring` }),
  };
}

/** All figures of all parts; those of the sheet, by part and figure, take their places. */
const figuresOf = (sheet: Assembly, parts: ReadonlyMap<string, Kind>): Figure[] =>
  sheet.parts.flatMap((p) =>
    sure(parts.get(p.id)).figures.map((f) => {
      const id = innerFigure(p.id, f.id);
      const { role: _role, ...figure } = f;
      return withSheetFigure(
        { ...figure, id, label: `${p.name}: ${f.label}` },
        sheet.figures?.[id],
      );
    }),
  );

/**
 * A control of the box, as a device has it. Where it is a control of a part under another name, it is
 * to an analysis what that one is, and reads as that one does.
 */
function parameterOf(c: BoxControl, parts: ReadonlyMap<string, Kind>): Parameter {
  const [move] = c.moves;
  const moved = move && parts.get(move.part)?.parameters.find((p) => p.id === move.setting);
  const isAlike = move && moved && moved.type === c.type && isSame(c, move.part, moved);
  const named = { id: c.id, label: c.label, ...(isAlike && moved.role && { role: moved.role }) };
  if (c.type === 'switch') return { ...named, type: 'switch', initial: c.initial === true };
  if (c.type === 'choice') {
    const options = c.options ?? [];
    return { ...named, type: 'choice', options, initial: String(c.initial ?? options[0]?.value) };
  }
  const [min, max] = endsOf(c);
  const initial = Number(c.initial ?? (min + max) / 2);
  const knob = moved?.type === 'knob' ? moved : undefined;
  const { reads, heardAs, unit } = knob ?? {};
  return {
    ...named,
    type: 'knob',
    min,
    max,
    initial,
    ...((c.unit ?? (isAlike && unit)) && { unit: c.unit ?? unit }),
    ...(heardAs && { heardAs }),
    ...(isAlike &&
      reads && {
        reads: (value, figure) => reads(value, (f) => figure(innerFigure(move.part, f))),
      }),
  };
}

/** Whether a control of the box sets one control of a part to just what it says itself. */
function isSame(c: BoxControl, part: string, moved: Parameter): boolean {
  const [move] = c.moves;
  if (!move || c.moves.length > 1) return false;
  if (moved.type === 'knob') return movesAlike(c, part, moved.id);
  if (moved.type === 'switch') return (move.off ?? false) === false && (move.on ?? true) === true;
  return (
    moved.type === 'choice' &&
    moved.options.every((o) => move.at?.[o.value] === o.value) &&
    c.options?.length === moved.options.length
  );
}

const endsOf = (c: BoxControl): [number, number] => [c.min ?? 0, c.max ?? 10];

/**
 * Times of parts that a tempo can set: a knob of the box that moves the time of a part over the same
 * numbers, so that what the box shows is what the part is set to.
 */
function temposOf(sheet: Assembly, parts: ReadonlyMap<string, Kind>): TempoTable[] {
  return sheet.parts.flatMap((p): TempoTable[] => {
    const kind = sure(parts.get(p.id));
    return [kind.tempo, ...(kind.moreTempos ?? [])].flatMap((t) => {
      const knob = t && sheet.controls.find((c) => movesAlike(c, p.id, t.setting));
      if (!t || !knob) return [];
      const repeats = t.repeats && sheet.controls.find((c) => movesAlike(c, p.id, t.repeats ?? ''));
      const figure = (f: string) => innerFigure(p.id, f);
      const { repeats: _repeats, ...rest } = t;
      return [
        {
          ...rest,
          setting: knob.id,
          low: figure(t.low),
          high: figure(t.high),
          step: figure(t.step),
          ...(repeats && { repeats: repeats.id }),
        },
      ];
    });
  });
}

/** Whether a knob of the box is a knob of a part under another name. */
function movesAlike(c: BoxControl, part: string, setting: string): boolean {
  const [min, max] = endsOf(c);
  return (
    c.type === 'knob' &&
    c.moves.some(
      (m) =>
        m.part === part &&
        m.setting === setting &&
        (m.curve ?? 'linear') === 'linear' &&
        (m.from ?? min) === min &&
        (m.to ?? max) === max,
    )
  );
}

/** Loops of parts that the box brings out: all their jacks are jacks of the box. */
function loopsOf(sheet: Assembly, parts: ReadonlyMap<string, Kind>): Loop[] {
  return sheet.parts.flatMap((p) =>
    (parts.get(p.id)?.loops ?? []).flatMap((loop): Loop[] => {
      const outside = (jack: Point) =>
        sheet.jacks.find((j) => j.at.some((t) => t.part === p.id && t.jack === jack))?.id;
      const [send, back] = [loop.send.map(outside), loop.return.map(outside)];
      if (![...send, ...back].every((j) => j !== undefined)) return [];
      return [
        {
          ...loop,
          id: `${p.id}-${loop.id}`,
          send: send as Point[],
          return: back as Point[],
        },
      ];
    }),
  );
}

/** The passes of all parts, their links, and the ways from the jacks of the box to what they are tied to. */
function passesInside(
  sheet: Assembly,
  parts: ReadonlyMap<string, Kind>,
  state: DeviceState,
  plugged: Plugged,
): Pass[] {
  const passes: Pass[] = [];
  const isLinked = (end: InnerJack, part: string, jack: Point) =>
    end.part === part && end.jack === jack;
  for (const part of sheet.parts) {
    const kind = sure(parts.get(part.id));
    const holdsPlug = (jack: Point): boolean =>
      sheet.links.some((l) => isLinked(l.from, part.id, jack) || isLinked(l.to, part.id, jack)) ||
      sheet.jacks.some((j) => plugged(j.id) && j.at.some((t) => isLinked(t, part.id, jack)));
    for (const pass of kind.passes(stateInside(sheet, part, kind, state), holdsPlug))
      passes.push(insideOfPart(pass, part.id));
  }
  for (const { from, to } of sheet.links) {
    const [a, b] = [conductorsOf(jackAt(from, parts)), conductorsOf(jackAt(to, parts))];
    b.forEach((point, i) =>
      passes.push(wire(inner(from.part, a[i] ?? sure(a[0])), inner(to.part, point))),
    );
  }
  for (const jack of sheet.jacks)
    for (const tie of jack.at) {
      const of = jackAt(tie, parts);
      const own = [jack.id, `${jack.id}-ring`];
      conductorsOf(of).forEach((point, i) => {
        const [out, into] = [sure(own[i]), inner(tie.part, point)];
        const leaves = of.direction === 'out' || (of.insert !== undefined && i === 0);
        passes.push(leaves ? wire(into, out) : wire(out, into));
      });
    }
  return passes;
}

const wire = (a: Point, b: Point): Pass => ({ is: 'wire', a, b });

/** How a part stands: what the controls of the box move, else what the sheet fixes, else as it comes. */
function stateInside(sheet: Assembly, part: Part, kind: Kind, state: DeviceState): DeviceState {
  const moved = new Map<string, SettingValue>();
  for (const control of sheet.controls)
    for (const move of control.moves)
      if (move.part === part.id) moved.set(move.setting, valueMoved(control, move, state, kind));
  const follows = part.engaged ?? 'box';
  const byControl = moved.get('engaged');
  // With the box's own switch off, what hangs on it is off, whatever a control of the box says.
  const isOn =
    byControl === undefined
      ? { box: state.engaged, always: true, never: false }[follows]
      : byControl === true && (follows !== 'box' || state.engaged);
  const set = (id: string): SettingValue =>
    moved.get(id) ?? part.settings?.[id] ?? sure(kind.parameters.find((p) => p.id === id)).initial;
  return {
    engaged: kind.alwaysOn === true || isOn,
    figure: (id) => state.figure(innerFigure(part.id, id)),
    knob: (id) => Number(set(id)),
    choice: (id) => String(set(id)),
    on: (id) => set(id) === true,
    text: (id) => String(set(id)),
  };
}

/** What a control of the box makes of a setting inside, as it stands. */
function valueMoved(
  control: BoxControl,
  move: BoxControl['moves'][number],
  state: DeviceState,
  kind: Kind,
): SettingValue {
  if (control.type === 'switch')
    return state.on(control.id) ? (move.on ?? true) : (move.off ?? false);
  if (control.type === 'choice') {
    const at = move.at?.[state.choice(control.id)];
    return at ?? kind.parameters.find((p) => p.id === move.setting)?.initial ?? false;
  }
  const [min, max] = endsOf(control);
  const share = max === min ? 0 : (state.knob(control.id) - min) / (max - min);
  return alongCurve(move.curve ?? 'linear', share, move.from ?? min, move.to ?? max);
}

/** A pass of a part, its points marked with the part. */
function insideOfPart(pass: Pass, part: string): Pass {
  const at = (point: Point) => inner(part, point);
  switch (pass.is) {
    case 'wire':
    case 'open':
    case 'resistor':
      return { ...pass, a: at(pass.a), b: at(pass.b) };
    case 'shunt':
      return { ...pass, at: at(pass.at) };
    case 'arrive':
      return { ...pass, at: at(pass.at) };
    case 'series':
      return { ...pass, at: at(pass.at), legs: pass.legs.map(at) };
    case 'source':
      return { ...pass, at: at(pass.at), name: pass.name ? `${part} ${pass.name}` : part };
    case 'stage':
      return {
        ...pass,
        id: inner(part, pass.id),
        from: at(pass.from),
        to: at(pass.to),
        ...(pass.gate && { gate: { ...pass.gate, key: at(pass.gate.key) } }),
      };
  }
}
