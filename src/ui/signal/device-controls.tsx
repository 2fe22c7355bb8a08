'use client';
import { Button, Group, Switch } from '@mantine/core';
import { kindOf } from '../../core/kinds';
import type { Device, SettingValue } from '../../core/rig';
import { isEngaged, stateIn } from '../../core/rig/device-state';
import type { Sound } from '../../core/rig/schema';
import { useDocument, useRig } from '../store/use-rig';
import { loopHint } from './host-panel';
import { SettingField } from './setting-field';

/** What can be set on a device in the chosen sound: on or off, and its knobs. */
export function ControlsHere({ device }: { device: Device }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const soundId = useRig((s) => s.sound);
  const kind = kindOf(device.kind);
  const sound = rig.sounds.find((s) => s.id === soundId);
  const state = stateIn(sound, device.id);
  const set = (setting: string, value: SettingValue) =>
    edit({ edit: 'setSetting', device: device.id, sound: sound?.id, setting, value });
  const ownSetting = (id: string) =>
    state?.settings !== undefined && Object.hasOwn(state.settings, id);
  return (
    <>
      {!kind.alwaysOn && <OnOff device={device} sound={sound} />}
      {kind.parameters.length > 0 && (
        <>
          <h3>Controls in {sound?.name ?? 'this sound'}</h3>
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
                onChange={(v) => set(p.id, v)}
              />
            ))}
          </div>
          {state && (
            <Button
              mt={6}
              size="compact-xs"
              variant="default"
              onClick={() => edit({ edit: 'clearState', device: device.id, sound: sound!.id })}
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

/** Whether the device is on in this sound. */
function OnOff({ device, sound }: { device: Device; sound: Sound | undefined }) {
  const edit = useRig((s) => s.edit);
  const kind = kindOf(device.kind);
  const words = kind.stateWords ?? { on: 'engaged', off: 'bypassed' };
  const engaged = isEngaged(kind, device, stateIn(sound, device.id));
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
    </Group>
  );
}
