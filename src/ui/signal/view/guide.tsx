/** What to do where nothing is chosen. */
export function Guide() {
  return (
    <div className="guide-text">
      <h2>Nothing chosen</h2>
      <p>
        Choose a strip to see what the device does in this sound, or the two letters on a lead to
        probe it.
      </p>
      <p className="faint">
        Letters on leads: TS instrument, BL balanced, ST stereo, IN insert, SP speaker, DG digital,
        AR air, LK a link inside a modeler. The bar under a strip runs from noise to level; the thin
        tick is the peak, the dashed one the clip point.
      </p>
      <p className="faint">
        Levels are figured at 1 kHz while playing normally. Arrow keys walk along, B bypasses, M
        moves, I inserts into a probed lead, ? shows all keys.
      </p>
    </div>
  );
}
