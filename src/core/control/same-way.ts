import type { Fix, Remark } from '../findings/finding';
import { deviceOf } from '../rig/find';
import type { Assignment, Control, Rig } from '../rig/schema';
import { endsOfAssignment } from './effective';

/** Words by which a control says that one thing goes as another comes. */
const TURNS_ABOUT = /\b(cross[ -]?fade|crossfader|swap)/i;

/**
 * Controls of which a second range was meant to be opposite: they bring up two alike settings of two
 * devices of one kind together, while another control of the rig sends the same two opposite ways, or
 * their own name says so. A pedal that is to bring both up is left alone where nothing says otherwise.
 */
export function sameWayRemarks(rig: Rig): Remark[] {
  const controls = rig.controls ?? [];
  return controls.flatMap((control) =>
    pairsOf(rig, control)
      .filter(([a, b]) => direction(rig, control, a) === direction(rig, control, b))
      .flatMap(([a, b]): Remark[] => {
        const model = controls.find((c) => c !== control && sendsApart(rig, c, a, b));
        if (!model && !TURNS_ABOUT.test(control.name)) return [];
        const [one, two] = [a, b].map((x) => deviceOf(rig, x.device)?.name ?? x.device);
        return [
          {
            rule: 'control-same-way',
            severity: 'advice',
            subjects: [a.device, b.device],
            about: `${control.id} ${b.id}`,
            what: `${control.name} moves ${one} and ${two} the same way.`,
            why: model
              ? `${model.name} sends the same two opposite ways, so that one comes as the other goes.`
              : 'Its name says that one comes as the other goes.',
            fix: turnedAbout(rig, control, b, two ?? b.device),
          },
        ];
      }),
  );
}

/** Pairs of assignments of a control that move the same setting of two devices of one kind. */
function pairsOf(rig: Rig, { assigns }: Control): [Assignment, Assignment][] {
  return assigns.flatMap((a, i) =>
    assigns
      .slice(i + 1)
      .filter((b) => a.setting === b.setting && a.device !== b.device)
      .filter((b) => {
        const [x, y] = [deviceOf(rig, a.device), deviceOf(rig, b.device)];
        return x !== undefined && y !== undefined && x.kind === y.kind;
      })
      .map((b): [Assignment, Assignment] => [a, b]),
  );
}

/** 1 where a control brings a setting up, −1 where it brings it down, 0 where it does neither. */
function direction(rig: Rig, { type }: Control, a: Assignment): number {
  if (type === 'pedal') {
    const [heel, toe] = endsOfAssignment(rig, a);
    return Math.sign(toe - heel);
  }
  const [off, on] = [a.off, a.on].map(Number);
  return Math.sign((on ?? NaN) - (off ?? NaN)) || 0;
}

/** Whether a control moves the same two settings, one up and the other down. */
function sendsApart(rig: Rig, control: Control, a: Assignment, b: Assignment): boolean {
  const [x, y] = [a, b].map((m) =>
    control.assigns.find((c) => c.device === m.device && c.setting === m.setting),
  );
  return (
    x !== undefined &&
    y !== undefined &&
    direction(rig, control, x) * direction(rig, control, y) === -1
  );
}

/** The control with the ends of one assignment exchanged. */
function turnedAbout(rig: Rig, control: Control, a: Assignment, name: string): Fix {
  const [heel, toe] = endsOfAssignment(rig, a);
  const ends = control.type === 'pedal' ? { min: toe, max: heel } : { on: a.off, off: a.on };
  return {
    words: `Turn the range of ${name} about`,
    edits: [
      {
        edit: 'setControl',
        control: {
          ...control,
          assigns: control.assigns.map((x) => (x.id === a.id ? { ...x, ...ends } : x)),
        },
      },
    ],
  };
}
