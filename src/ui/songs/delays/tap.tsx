import { Button, Group } from '@mantine/core';
import { useRef } from 'react';
import { tapped, type Tapped } from '../../../core/songs';
import { fixed } from '../../../core/units';
import { useKeys } from '../../frame/use-keys';

/** A pause after which tapping begins anew, in ms. */
const PAUSE_MS = 2500;

/** Taps a tempo and tells how steady the foot was; what it measured is used for devices that are tapped. */
export function Tap({
  onTapped,
  taps,
}: {
  onTapped: (t: Tapped | undefined) => void;
  taps: Tapped | undefined;
}) {
  const times = useRef<number[]>([]);
  const tap = () => {
    const now = performance.now();
    times.current =
      now - (times.current.at(-1) ?? -Infinity) > PAUSE_MS
        ? [now]
        : [...times.current, now].slice(-16);
    onTapped(tapped(times.current));
  };
  useKeys([['t', tap]]);
  return (
    <section data-tap>
      <Group gap={8} align="end">
        <Button size="md" onClick={tap}>
          Tap (T)
        </Button>
        <Button
          size="xs"
          variant="default"
          disabled={!taps}
          onClick={() => {
            times.current = [];
            onTapped(undefined);
          }}
        >
          Forget it
        </Button>
      </Group>
      {taps ? (
        <dl className="pairs tap-width">
          <dt>Presses</dt>
          <dd>{taps.presses}</dd>
          <dt>Mean interval</dt>
          <dd>
            {fixed(taps.meanMs, 1)} ms, {fixed(taps.bpm, 1)} bpm
          </dd>
          <dt>Spread</dt>
          <dd>
            {taps.spreadMs === null ? 'unknown of two presses' : `± ${fixed(taps.spreadMs, 1)} ms`}
          </dd>
          <dt>The mean may be off by</dt>
          <dd>
            {taps.errorMs === null ? 'unknown; tap once more' : `${fixed(taps.errorMs, 1)} ms`}
          </dd>
        </dl>
      ) : (
        <p className="faint small-print">
          Tap at least twice, as you would on stage. Until then, tapped devices are judged with a
          typical foot.
        </p>
      )}
    </section>
  );
}
