import type { loadsOf } from '../../../core/build';

type Load = ReturnType<typeof loadsOf>[number];

/** Every outlet: what it gives, what hangs on it, and its load. */
export function OutletsTable({ loads }: { loads: readonly Load[] }) {
  return (
    <>
      {loads.length === 0 ? (
        <div className="empty">
          There is no supply in this rig. Add one from the palette (Ctrl K, “supply”); then outlets
          can be given out.
        </div>
      ) : (
        <table className="sheet-table figures" data-table="outlets">
          <thead>
            <tr>
              <th>Supply, outlet</th>
              <th>Gives</th>
              <th>Feeds</th>
              <th>Load</th>
            </tr>
          </thead>
          <tbody>
            {loads.map((l) => (
              <OutletRow key={`${l.place.supply.id} ${l.place.outlet.id}`} load={l} />
            ))}
          </tbody>
        </table>
      )}
    </>
  );
}

function OutletRow({ load: l }: { load: Load }) {
  const share = (100 * l.milliamps) / l.place.outlet.milliamps;
  return (
    <tr data-outlet={`${l.place.supply.id} ${l.place.outlet.id}`}>
      <td>
        {l.place.supply.name}, <strong>{l.place.outlet.label}</strong>
        <div className="faint common-text">
          {l.place.outlet.isolated ? 'isolated' : 'shared return'}
        </div>
      </td>
      <td>
        {l.volts} V{l.place.outlet.ac ? ' AC' : ''}, {l.place.outlet.milliamps} mA
        {l.place.outlet.centre === 'positive' && (
          <div className="faint common-text">centre positive</div>
        )}
      </td>
      <td>
        {l.takers.map((t) => t.device.name).join(', ') || <span className="faint">nothing</span>}
      </td>
      <td>
        <div className="loadbar" role="img" aria-label={`${Math.round(share)} % of the outlet`}>
          <span style={{ width: `${Math.min(100, share)}%` }} data-over={l.room < 0} />
        </div>
        {l.milliamps} mA
        {l.room < 0 && l.takers.length > 0 && (
          <strong> {l.milliamps > l.place.outlet.milliamps ? 'too much' : 'no headroom'}</strong>
        )}
      </td>
    </tr>
  );
}
