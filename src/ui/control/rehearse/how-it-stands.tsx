'use client';
import type { Scene } from '../../../core/control/scene';
import { midiDevices, screenOn } from '../../../core/midi';
import { sure } from '../../../core/outcome';
import { nameOf } from '../../../core/rig/find';
import type { Rig, Song } from '../../../core/rig/schema';
import type { Arriving } from '../../../core/signal/destinations';
import { displayLabels } from '../../../core/songs';
import { showLevel } from '../../../core/units';
import { useAnswer } from '../../look/use-answer';
import { useDocument, useRig } from '../../store/use-rig';
import type { Floor } from './use-floor';

/** What the display of a device reads while a scene is on: the song and the sound, as they fit. */
const display = (rig: Rig, song: Song | undefined, scene: Scene, device: string): string =>
  displayLabels(rig, song, scene)
    .find((l) => l.device === device)
    ?.lines.join(' / ') ?? '';

/** What is off and how to get right, what every device shows, and what is heard. */
export function HowItStands({ floor, heard }: { floor: Floor; heard: Arriving[] | null }) {
  const { off, steps, wanted, name } = floor;
  return (
    <section>
      <div
        role="status"
        data-off={off.length}
        className={off.length ? 'verdict wrong' : 'verdict right'}
      >
        {off.length === 0 ? (
          <strong>As it should be.</strong>
        ) : (
          <>
            <strong>
              {off.length === 1 ? 'One thing is' : `${off.length} things are`} not as {name(wanted)}{' '}
              wants.
            </strong>
            <ol data-list="recovery">
              {steps.map((s) => (
                <li key={s.words}>{s.words}</li>
              ))}
            </ol>
          </>
        )}
      </div>
      <h3>What every device does and shows</h3>
      <StandIns floor={floor} />
      <h3>What is heard where, as it stands</h3>
      <Heard heard={heard} />
    </section>
  );
}

/** What every stand-in does and shows now, and whether that is what is wanted. */
function StandIns({ floor: { now, rig, stage, stop, called, off } }: { floor: Floor }) {
  return (
    <table className="sheet-table figures" data-table="stand-ins">
      <thead>
        <tr>
          <th>Device</th>
          <th>Is on</th>
          <th>Shows</th>
          <th>As wanted</th>
        </tr>
      </thead>
      <tbody>
        {[...now.machine].map(([id, s]) => {
          const m = sure(midiDevices(rig).get(id));
          const scene = stage.orders.scenes.find(
            (x) =>
              x.sound.states[id]?.program &&
              s.program &&
              x.sound.states[id].program.number === s.program.number &&
              (x.sound.states[id].program.bank ?? 0) === s.program.bank,
          );
          const reads = display(rig, stop?.song, scene ?? called, id);
          const wrong = off.filter((o) => o.device === id);
          return (
            <tr key={id} data-standin={id}>
              <td>
                <strong>{m.device.name}</strong>
              </td>
              <td>
                {s.program
                  ? `wire ${m.bank === 'none' ? '' : `bank ${s.program.bank}, `}${s.program.number}`
                  : m.kind.alwaysOn
                    ? 'standing by'
                    : s.values.get(`${id} engaged`)
                      ? 'on'
                      : 'off'}
              </td>
              <td>
                {s.program ? (
                  <span className="display">
                    {screenOn(m, {
                      ...(m.bank !== 'none' && { bank: s.program.bank }),
                      number: s.program.number,
                    })}
                    {reads ? ` ${reads}` : ''}
                  </span>
                ) : reads ? (
                  <span className="display">{reads}</span>
                ) : (
                  ''
                )}
              </td>
              <td>
                {wrong.length ? (
                  <strong>no: {wrong.map((w) => w.key.split(' ')[1]).join(', ')}</strong>
                ) : (
                  'yes'
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

function Heard({ heard }: { heard: ReturnType<typeof useAnswer<'heard'>> }) {
  const rig = useDocument();
  const units = useRig((s) => s.units);
  if (!heard) return <p className="faint">Listening …</p>;
  return (
    <table className="sheet-table figures" data-table="heard">
      <tbody>
        {heard.map((d) => (
          <tr key={d.device}>
            <td>{d.name}</td>
            <td>{d.levelDbu ? showLevel(d.levelDbu.normal, units.level) : 'silent'}</td>
            <td>{d.sources.map((s) => nameOf(rig, s)).join(', ')}</td>
            <td>{d.channels === 'silent' ? '' : d.channels}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
