import { fixed, showChange } from '../../core/units';
import type { PreviewState } from './use-preview';

const change = (value: number | null, unit: string, decimals = 1) =>
  value === null
    ? '–'
    : unit === 'dB'
      ? showChange(value, decimals)
      : `${Number(value.toFixed(decimals)) > 0 ? '+' : ''}${fixed(value, decimals)} ${unit}`;

/** What an edit would change at each destination, before it is made. */
export function PreviewPanel({ title, preview }: { title: string; preview: PreviewState }) {
  return (
    <section
      className="preview"
      aria-live="polite"
      aria-label="What this would change"
      // It scrolls, so keys must reach it.
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
      tabIndex={0}
    >
      <strong>{title}</strong>
      {preview.state === 'working' && <span className="faint"> Figuring …</span>}
      {preview.state === 'refused' && <span> {preview.why}</span>}
      {preview.state === 'ready' && (
        <>
          <table className="sheet-table numbers figures">
            <thead>
              <tr>
                <th>At</th>
                <th>Level</th>
                <th>Saturation</th>
                <th>Signal to noise</th>
                <th>5 kHz against 1 kHz</th>
                <th>Latency</th>
                <th>Width</th>
              </tr>
            </thead>
            <tbody>
              {preview.preview.rows.map((r) => (
                <tr key={r.destination}>
                  <td>
                    {r.destination}
                    {r.silent ? ': falls silent' : ''}
                  </td>
                  <td>{change(r.levelDb, 'dB')}</td>
                  <td>{change(r.thdPercent, '%')}</td>
                  <td>{change(r.signalToNoiseDb, 'dB')}</td>
                  <td>{change(r.at5kHzDb, 'dB')}</td>
                  <td>{change(r.latencyMs, 'ms')}</td>
                  <td>{r.channels ?? 'same'}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {preview.preview.added.map((w) => (
            <div key={w}>New finding: {w}</div>
          ))}
          {preview.preview.gone.map((w) => (
            <div key={w}>Cured: {w}</div>
          ))}
        </>
      )}
    </section>
  );
}
