/** What is not proposed because it would break something, tried on a copy of the rig. */
export function Spared({ words }: { words: readonly string[] }) {
  return words.map((w) => (
    <p key={w} className="small-print" data-spared>
      {w}.
    </p>
  ));
}
