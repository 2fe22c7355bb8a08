import { Button, Checkbox, Group } from '@mantine/core';
import { type Model, sizeOf } from '../../../core/build';
import { sure } from '../../../core/outcome';
import { CommitNumber } from '../../look/commit-number';
import { useRig } from '../../store/use-rig';
import { JackSpots } from '../jack-spots';

/** A device on the board: where it stands, its measures, and how it is turned, pinned or put below. */
export function ItemPanel({
  item,
  onTurn,
  onPin,
  onUnder,
  onOff,
  canUnder,
}: {
  item: Model['items'][number];
  onTurn: () => void;
  onPin: (v: boolean) => void;
  onUnder: (v: boolean) => void;
  onOff: () => void;
  canUnder: boolean;
}) {
  const edit = useRig((s) => s.edit);
  const size = sure(sizeOf(item.device) ?? undefined);
  const field = (key: 'width' | 'depth' | 'height', label: string) => (
    <CommitNumber
      w={84}
      label={label}
      min={5}
      max={3000}
      value={size[key]}
      onCommit={(v) =>
        v !== undefined &&
        edit({ edit: 'setDevice', device: item.device.id, size: { ...size, [key]: v } })
      }
    />
  );
  return (
    <section data-item-panel={item.device.id}>
      <h3 className="common-gap">{item.device.name}</h3>
      <p className="figures item-panel-text">
        {item.device.at
          ? `${item.device.at.x} mm from the left, ${item.device.at.y} mm from the rear ` +
            `edge${item.turn ? `, turned ${item.turn}°` : ''}`
          : ''}
        {item.pressed ? `. Stepped on in ${Math.round(item.pressed * 100)} % of the changes.` : '.'}
      </p>
      <Group gap={6}>
        {field('width', 'Wide, mm')}
        {field('depth', 'Deep, mm')}
        {field('height', 'High, mm')}
      </Group>
      {item.device.size ? (
        <Button
          size="compact-xs"
          variant="default"
          mt={4}
          onClick={() => edit({ edit: 'asUsual', device: item.device.id, what: ['size'] })}
        >
          As usual for its kind
        </Button>
      ) : (
        <p className="faint item-panel-text-2">Usual for its kind. Measure yours.</p>
      )}
      <Group gap={10} my={6}>
        <Button size="compact-xs" variant="default" onClick={onTurn}>
          Turn
        </Button>
        <JackSpots device={item.device} />
        <Checkbox
          size="xs"
          label="Pinned"
          checked={item.pinned}
          onChange={(e) => onPin(e.currentTarget.checked)}
        />
        {canUnder && (
          <Checkbox
            size="xs"
            label="Under the deck"
            checked={item.under}
            onChange={(e) => onUnder(e.currentTarget.checked)}
          />
        )}
        <Button size="compact-xs" variant="default" onClick={onOff}>
          Take off
        </Button>
      </Group>
    </section>
  );
}
