import { type Figure, kindOf } from '../../core/kinds';
import type { Device } from '../../core/rig';

/**
 * What a block costs inside its host, and what a host has, as figures that can be corrected like
 * any other.
 */
export function costFigures(device: Device): Figure[] {
  const kind = kindOf(device.kind);
  const figure = (
    id: string,
    label: string,
    unit: Figure['unit'],
    typical: number,
    max: number,
    reason: string,
  ): Figure => ({ id, label, unit, typical, min: 0, max, reason });
  return [
    ...(kind.block && device.host !== undefined
      ? [
          figure('slots', 'Slots it takes', '', kind.block.slots, 64, 'one for each block'),
          figure(
            'percent',
            'Processing it takes, %',
            '',
            kind.block.percent,
            400,
            'typical for a block of this kind',
          ),
        ]
      : []),
    ...(kind.hosts
      ? [
          figure('slots', 'Slots it has', '', kind.hosts.slots, 256, 'usual for its size'),
          figure('percent', 'Processing it has, %', '', kind.hosts.percent, 1000, 'all of it'),
          figure('paths', 'Paths it has', '', kind.hosts.paths, 16, 'usual for its size'),
        ]
      : []),
  ];
}
