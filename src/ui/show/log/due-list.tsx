import { Button } from '@mantine/core';
import type { Due } from '../../../core/show/book';
import { fixed } from '../../../core/units';
import { useDocument } from '../../store/use-rig';
import { newId } from '../new-id';
import { useShow } from '../parts';
import { useBook } from '../use-book';

/** What is due by shows, hours or months, and a press to say that it was done. */
export function DueList({ due }: { due: Due[] }) {
  const rig = useDocument();
  const put = useBook((s) => s.put);
  const { show } = useShow();
  const shown = due.filter((d) => d.due || d.used > 0.7 * d.of);
  if (!shown.length) return null;
  return (
    <section data-due>
      <h3>Due</h3>
      <ul className="due">
        {shown.map((d) => (
          <li key={d.id} data-due-item={d.id}>
            <span>
              <strong>{d.due ? 'Now' : 'Soon'}</strong>: {d.words}{' '}
              <span className="faint">
                ({fixed(d.used)} of {d.of} {d.unit}
                {d.since ? `, last ${d.since}` : ', never written down'})
              </span>
            </span>
            <Button
              size="compact-sm"
              variant="default"
              onClick={() => {
                const device = rig.devices.find((x) => x.id === d.device);
                if (!device) return;
                put('line', newId(), {
                  at: new Date().toISOString(),
                  text: `Done: ${d.words}`,
                  show: show?.id ?? '',
                  sort: d.id.startsWith('battery')
                    ? 'battery'
                    : d.id.startsWith('tubes')
                      ? 'tube'
                      : 'repair',
                  links: [{ is: 'device', id: device.id, name: device.name }],
                });
              }}
            >
              Done
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
