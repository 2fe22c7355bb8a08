import { Button } from '@mantine/core';
import { useState } from 'react';
import type { Scene } from '../../../core/control/scene';
import { keyWords, type Lost, messageWords } from '../../../core/midi';
import { nameOf } from '../../../core/rig/find';
import { useAnswer } from '../../look/use-answer';
import { useDocument } from '../../store/use-rig';

/** What comes of it when one message of the change gets lost: worked out when it is asked for. */
export function LostMessages({ from, to }: { from: Scene; to: Scene }) {
  const [wanted, setWanted] = useState(false);
  const lost = useAnswer('lost', wanted ? { from: from.id, to: to.id } : null);
  return (
    <>
      <h3>If one message gets lost</h3>
      {!wanted && (
        <Button size="compact-sm" variant="default" onClick={() => setWanted(true)}>
          Lose each message once
        </Button>
      )}
      {wanted && !lost && <p role="status">Losing each message once …</p>}
      {lost && (lost.length ? <LostTable lost={lost} /> : <p>Nothing is sent in this change.</p>)}
    </>
  );
}

function LostTable({ lost }: { lost: Lost[] }) {
  const rig = useDocument();
  return (
    <table className="sheet-table figures" data-table="lost">
      <thead>
        <tr>
          <th>Lost</th>
          <th>Then</th>
          <th>Heard</th>
          <th>Healed by the next change</th>
        </tr>
      </thead>
      <tbody>
        {lost.map((l, i) => (
          <tr key={i} data-lost={l.sender}>
            <td>
              <strong>{nameOf(rig, l.sender)}</strong>
              <div className="faint">{messageWords(l.message)}</div>
            </td>
            <td>
              {l.off.length ? (
                l.off.map((m) => <div key={m.key}>{keyWords(rig, m)}</div>)
              ) : (
                <span className="faint">all as meant</span>
              )}
            </td>
            <td>
              {l.heard.map((h) => (
                <div key={h.destination}>
                  {h.destination}: {h.what.join(', ')}
                </div>
              ))}
              {l.off.length > 0 && l.heard.length === 0 && (
                <span className="faint">nobody hears it</span>
              )}
            </td>
            <td>{l.off.length > 0 && healedWords(l)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Names of sounds that are told; more are counted. */
const NAMED = 3;

function healedWords({ next }: Lost): string {
  if (!next.of) return 'there is no other sound';
  if (!next.not.length) return 'yes, whichever comes';
  const some = next.not.slice(0, NAMED).join(', ');
  const more = next.not.length > NAMED ? ` and ${next.not.length - NAMED} more` : '';
  return next.healed ? `not by ${some}${more}` : 'by none of them';
}
