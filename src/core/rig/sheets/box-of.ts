import type { Figure, Kind, MidiTable } from '../../kinds';
import type { Sheet, SheetFigure } from './sheet-schema';

/** A figure as a sheet gives it: its value is the typical one, and why it is believed is where it came from. */
export function withSheetFigure(figure: Figure, said: SheetFigure | undefined): Figure {
  if (!said) return figure;
  const measured = `measured${said.on ? ` on ${said.on}` : ''}`;
  return {
    ...figure,
    typical: said.value,
    min: Math.min(said.low ?? figure.min, said.value),
    max: Math.max(said.high ?? figure.max, said.value),
    reason: { typical: figure.reason, sheet: 'from its sheet', measured }[said.from],
  };
}

/** Programs that one bank holds, as on the wire. */
const PROGRAMS_A_BANK = 128;

/** What a sheet says of the box around its inside: name, power, size, messages. */
export function boxOf(sheet: Sheet, inside: Kind): Omit<Kind, 'id' | 'passes'> {
  const { size, power, mains, display, switches, rackUnits, job, jackSpots } = sheet;
  const midi = midiOf(sheet, inside.midi);
  // What hangs on the mains takes nothing of a supply, unless the sheet says both.
  const { power: _power, ...onMains } = inside;
  return {
    ...(mains ? onMains : inside),
    name: sheet.name,
    about: [sheet.about ?? inside.about, sheet.cannot && `Not said here: ${sheet.cannot}`]
      .filter(Boolean)
      .join(' '),
    ...(job && { job }),
    ...(size && { size }),
    ...(power && { power }),
    ...(display && { display }),
    ...(switches !== undefined && { switches }),
    ...(rackUnits !== undefined && { rackUnits }),
    ...(jackSpots && { jackSpots: { ...inside.jackSpots, ...jackSpots } }),
    ...(mains && {
      mains: {
        hz: inside.mains?.hz ?? [50, 60],
        watts: mains.watts,
        volts: mains.volts ?? inside.mains?.volts ?? [[100, 240]],
        ...(mains.inlets && { inlets: mains.inlets }),
      },
    }),
    ...(midi && { midi }),
    ...(sheet.programs?.length && {
      programNames: sheet.programs.map(({ number, name }) => ({
        bank: Math.floor(number / PROGRAMS_A_BANK),
        number: number % PROGRAMS_A_BANK,
        name,
      })),
    }),
  };
}

function midiOf({ midi }: Sheet, inside: MidiTable | undefined): MidiTable | undefined {
  if (!midi) return inside;
  const { programs, controls, clock, thru } = midi;
  return {
    ...inside,
    ...(programs && {
      programs: { count: programs.count, bank: programs.bank, shows: { from: programs.from } },
    }),
    ...(controls && { controls }),
    ...(clock && { clock }),
    thrus: thru ? [thru] : (inside?.thrus ?? ['none']),
  };
}
