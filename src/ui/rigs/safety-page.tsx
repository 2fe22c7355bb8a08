import Link from 'next/link';
import { CAUTIONS } from '../../core/findings/cautions';

/** What hurts people around a rig, and who decides. */
export function SafetyPage() {
  return (
    <main className="page safety-page-width" data-place="safety">
      <h1 className="safety-page-text">Safety</h1>
      <p>
        Yantrel works out figures from what it is told. It cannot see your gear.{' '}
        <strong>Local codes and licensed practice come first, always.</strong>
      </p>
      {CAUTIONS.map((c) => (
        <section key={c.id} data-caution={c.id}>
          <h2 className="safety-page-text-2">{c.title}</h2>
          <p className="no-margin">{c.words}</p>
        </section>
      ))}
      <p className="safety-page-gap">
        Findings marked <strong>danger</strong> are about hurt people or destroyed gear. They can be
        accepted with a reason, as all findings can; the reason is kept and printed.{' '}
        <Link href="/" className="common-text-4">
          Back to the rigs
        </Link>
      </p>
    </main>
  );
}
