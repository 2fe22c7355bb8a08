import Link from 'next/link';
import { CAUTIONS } from '../../core/findings/cautions';

/** What hurts people around a rig, and who decides. */
export function SafetyPage() {
  return (
    <main className="page" data-place="safety" style={{ maxWidth: 820 }}>
      <h1 style={{ fontSize: 26 }}>Safety</h1>
      <p>
        Yantrel works out figures from what it is told. It cannot see your gear.{' '}
        <strong>Local codes and licensed practice come first, always.</strong>
      </p>
      {CAUTIONS.map((c) => (
        <section key={c.id} data-caution={c.id}>
          <h2 style={{ fontSize: 17, margin: '16px 0 2px' }}>{c.title}</h2>
          <p style={{ margin: 0 }}>{c.words}</p>
        </section>
      ))}
      <p style={{ marginTop: 22 }}>
        Findings marked <strong>danger</strong> are about hurt people or destroyed gear. They can be
        accepted with a reason, as all findings can; the reason is kept and printed.{' '}
        <Link href="/" style={{ color: 'var(--ink)' }}>
          Back to the rigs
        </Link>
      </p>
    </main>
  );
}
