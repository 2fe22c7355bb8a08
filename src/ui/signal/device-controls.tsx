'use client';
import { sure } from '../../core/outcome';
import { Button, Group, SegmentedControl, Switch } from '@mantine/core';
import { useState } from 'react';
import { kindOf } from '../../core/kinds';
import {
  cutText,
  type Device,
  type Rig,
  settingOf,
  type SettingValue,
  settingWords,
} from '../../core/rig';
import { isEngaged, stateIn } from '../../core/rig/device-state';
import type { Sound } from '../../core/rig/schema';
import { useDocument, useRig } from '../store/use-rig';
import { loopHint } from './host-panel';
import { SettingField } from './setting-field';

/** Where what is set holds: in the sound that is heard, or in every one. */
type Holds = 'this' | 'all';

/**
 * Where turning something holds unless somebody says otherwise: a real pedal has one knob, so in every
 * sound; what keeps programs, what lives in a host, and what differs between sounds already, in this one.
 */
function usualHold(rig: Rig, device: Device): Holds {
  const kind = kindOf(device.kind);
  const keeps = kind.programs === true || kind.hosts !== undefined || device.host !== undefined;
  const differs = rig.sounds.some((s) => stateIn(s, device.id)?.settings !== undefined);
  return keeps || differs ? 'this' : 'all';
}

/** What can be set on a device: on or off in the chosen sound, and its knobs, here or everywhere. */
export function ControlsHere({ device }: { device: Device }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const soundId = useRig((s) => s.sound);
  const [chosen, setHolds] = useState<Holds>();
  const holds = chosen ?? usualHold(rig, device);
  const kind = kindOf(device.kind);
  const sound = rig.sounds.find((s) => s.id === soundId);
  const state = stateIn(sound, device.id);
  const set = (setting: string, value: SettingValue, going?: string) =>
    edit(
      holds === 'all'
        ? { edit: 'holdEverywhere', device: device.id, setting, value }
        : { edit: 'setSetting', device: device.id, sound: sound?.id, setting, value },
      undefined,
      going,
    );
  const ownSetting = (id: string) =>
    state?.settings !== undefined && Object.hasOwn(state.settings, id);
  return (
    <>
      {!kind.alwaysOn && <OnOff device={device} sound={sound} />}
      {kind.parameters.length > 0 && (
        <>
          <h3>Controls in {sound?.name ?? 'this sound'}</h3>
          {rig.sounds.length > 1 && (
            <HoldsIn sound={sound?.name ?? 'this sound'} holds={holds} onHolds={setHolds} />
          )}
          <div className="knobs">
            {kind.parameters.map((p) => (
              <SettingField
                key={p.id}
                parameter={p}
                kind={kind}
                device={device}
                state={state}
                hint={
                  p.type === 'text' && p.role === 'loop order' ? loopHint(rig, device) : undefined
                }
                onChange={(v, going) => set(p.id, v, going)}
              />
            ))}
          </div>
          <Differing device={device} sound={sound} />
          {state && (
            <Button
              mt={6}
              size="compact-xs"
              variant="default"
              onClick={() => edit({ edit: 'clearState', device: device.id, sound: sure(sound).id })}
            >
              Follow the device’s own settings here
            </Button>
          )}
          {kind.parameters.some((p) => p.type === 'knob' && !ownSetting(p.id)) && (
            <div className="faint device-inspector-text">
              * the device’s own setting, the same in every sound that says nothing else
            </div>
          )}
        </>
      )}
    </>
  );
}

/** Whether what is turned holds in the sound that is heard, or in all. */
function HoldsIn({
  sound,
  holds,
  onHolds,
}: {
  sound: string;
  holds: Holds;
  onHolds: (holds: Holds) => void;
}) {
  return (
    <SegmentedControl
      size="xs"
      mb={6}
      fullWidth
      aria-label="What is turned holds in"
      value={holds}
      onChange={(v) => onHolds(v === 'all' ? 'all' : 'this')}
      data={[
        { value: 'this', label: `in ${cutText(sound, 24)}` },
        { value: 'all', label: 'in all sounds' },
      ]}
    />
  );
}

/** What stands otherwise in other sounds, in which, and one press that makes it the same everywhere. */
function Differing({ device, sound }: { device: Device; sound: Sound | undefined }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const kind = kindOf(device.kind);
  const valueIn = (s: Sound | undefined, id: string) =>
    settingOf(kind, device, stateIn(s, device.id), id);
  const rows = kind.parameters.flatMap((p) => {
    const here = valueIn(sound, p.id) ?? p.initial;
    const others = rig.sounds.filter((s) => (valueIn(s, p.id) ?? p.initial) !== here);
    return others.length ? [{ p, here, others }] : [];
  });
  if (!rows.length) return null;
  return (
    <ul className="differing">
      {rows.map(({ p, here, others }) => (
        <li key={p.id} data-setting-differs={p.id}>
          {p.label} stands otherwise in{' '}
          {others.slice(0, 3).map((s, i) => (
            <span key={s.id}>
              {i > 0 && ', '}
              {s.name} ({settingWords(device.kind, p.id, valueIn(s, p.id) ?? p.initial)})
            </span>
          ))}
          {others.length > 3 && ` and ${others.length - 3} more`}.{' '}
          <Button
            size="compact-xs"
            variant="default"
            aria-label={`${p.label} the same everywhere`}
            onClick={() =>
              edit({ edit: 'holdEverywhere', device: device.id, setting: p.id, value: here })
            }
          >
            Same everywhere
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** Whether the device is on in this sound. */
function OnOff({ device, sound }: { device: Device; sound: Sound | undefined }) {
  const { sounds } = useDocument();
  const edit = useRig((s) => s.edit);
  const kind = kindOf(device.kind);
  const words = kind.stateWords ?? { on: 'engaged', off: 'bypassed' };
  const engaged = isEngaged(kind, device, stateIn(sound, device.id));
  const differs = sounds.some((s) => isEngaged(kind, device, stateIn(s, device.id)) !== engaged);
  return (
    <Group mt={8} gap={8}>
      <Switch
        label={`${engaged ? words.on : words.off} in ${sound?.name ?? 'this sound'}`}
        checked={engaged}
        onChange={(e) =>
          edit({
            edit: 'setEngaged',
            device: device.id,
            sound: sound?.id,
            engaged: e.currentTarget.checked,
          })
        }
      />
      {differs && (
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => edit({ edit: 'holdEverywhere', device: device.id, value: engaged })}
        >
          {engaged ? words.on : words.off} everywhere
        </Button>
      )}
    </Group>
  );
}
