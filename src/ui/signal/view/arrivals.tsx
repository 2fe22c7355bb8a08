import { arrivalWords } from './arrival-words';
import { useRig, useSoundReport } from '../../store/use-rig';

/** So many lines can be seen at once wherever the page is narrow. */
const ROOM = 4;

/** What arrives where, in one line for each destination. */
export function Arrivals() {
  const report = useSoundReport();
  const units = useRig((s) => s.units);
  const destinations = report?.destinations ?? [];
  return (
    <div
      className="arrivals"
      role="group"
      aria-label="What arrives"
      // More lines than there is room for are scrolled, by keys too.
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
      tabIndex={destinations.length > ROOM ? 0 : undefined}
    >
      {destinations.map((d) => (
        <span key={d.device} data-destination={d.device}>
          <strong>{d.name}</strong> <span className="figures">{arrivalWords(d, units.level)}</span>
        </span>
      ))}
    </div>
  );
}
