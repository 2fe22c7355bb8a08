import { Button } from '@mantine/core';
import { careId, type Due, linkTo } from '../../../core/show/book';
import { fixed } from '../../../core/units';
import { CommitNumber } from '../../look/commit-number';
import { useDocument } from '../../store/use-rig';
import { newId } from '../new-id';
import { useShow } from '../parts';
import { useBook } from '../use-book';

/** From this share of its interval on, care is told before it is due. */
const SOON = 0.7;

/** What is due by shows, hours or months, a press to say that it was done, and how often each is. */
export function DueList({ due }: { due: Due[] }) {
  const shown = due.filter((d) => d.due || d.used > SOON * d.of);
  if (!due.length) return null;
  return (
    <section data-due>
      {shown.length > 0 && <h3>Due</h3>}
      <ul className="due">
        {shown.map((d) => (
          <DueLine key={d.id} due={d} />
        ))}
      </ul>
      <details data-care>
        <summary>How often care is due</summary>
        <div className="care">
          {due.map((d) => (
            <Interval key={d.id} due={d} />
          ))}
        </div>
      </details>
    </section>
  );
}

function DueLine({ due }: { due: Due }) {
  const rig = useDocument();
  const put = useBook((s) => s.put);
  const { show } = useShow();
  const done = () => {
    const device = rig.devices.find((x) => x.id === due.device);
    if (!device) return;
    put('line', newId(), {
      at: new Date().toISOString(),
      text: `Done: ${due.words}`,
      show: show?.id ?? '',
      sort: due.done,
      links: [linkTo(device)],
    });
  };
  return (
    <li data-due-item={due.id}>
      <span>
        <strong>{due.due ? 'Now' : 'Soon'}</strong>: {due.words}{' '}
        <span className="faint">
          ({due.unit === 'shows' ? due.used : fixed(due.used)} of {due.of} {due.unit}
          {due.since ? `, last ${due.since}` : ', never written down'})
        </span>
      </span>
      <Button size="compact-sm" variant="default" onClick={done}>
        Done
      </Button>
    </li>
  );
}

/** How often one sort of care is due for one device; left empty, as is usual in the trade. */
function Interval({ due }: { due: Due }) {
  const rig = useDocument();
  const put = useBook((s) => s.put);
  const { device, care, usual, unit, words, of } = due;
  return (
    <CommitNumber
      size="xs"
      label={`${words}: every … ${unit}`}
      placeholder={`${usual}, as is usual`}
      min={1}
      max={10_000}
      value={of === usual ? undefined : of}
      onCommit={(every) =>
        put('care', careId(rig.id, device, care), { device, care, every: every ?? null })
      }
    />
  );
}
