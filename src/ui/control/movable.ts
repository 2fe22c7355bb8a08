import { kindOf } from '../../core/kinds';
import { deviceOf, type Rig } from '../../core/rig';

/** Settings of a device that a control or a control change can move. */
export function movable(rig: Rig, device: string): { value: string; label: string }[] {
  const d = deviceOf(rig, device);
  if (!d) return [];
  const kind = kindOf(d.kind);
  return [
    ...(kind.alwaysOn
      ? []
      : [
          {
            value: 'engaged',
            label: kind.stateWords
              ? `${kind.stateWords.on} or ${kind.stateWords.off}`
              : 'engaged or bypassed',
          },
        ]),
    ...kind.parameters
      .filter((p) => p.type !== 'text')
      .map((p) => ({ value: p.id, label: p.label })),
  ];
}
