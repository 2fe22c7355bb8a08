'use client';
import { Button, TextInput } from '@mantine/core';
import { type Dispatch, type SetStateAction, useState } from 'react';
import type { Finding, Fix } from '../../core/findings/finding';
import { isSafe, type ToMeasure } from '../../core/report';
import { nameOf, type Rig } from '../../core/rig';
import { deviceOf, leadOf } from '../../core/rig/find';
import { howMany, showFigure } from '../../core/units';
import { SeverityMark } from '../look/severity';
import { outcomeWords } from '../look/tried-edits';
import { PreviewPanel } from '../signal/preview-panel';
import { usePreview } from '../signal/use-preview';
import { useDocument, useRig } from '../store/use-rig';
import type { Ways } from './use-trials';

/**
 * One finding: what, why, where; what cures it, tried on a copy; or leave it, with a reason.
 */
export function FindingCard({
  finding,
  ways,
  hangsOn,
  goToSignal,
}: {
  finding: Finding;
  ways: Ways;
  /** Typical figures that were found to turn it. */
  hangsOn: readonly ToMeasure[];
  goToSignal: () => void;
}) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const select = useRig((s) => s.select);
  const setSound = useRig((s) => s.setSound);
  const openFindings = useRig((s) => s.openFindings);
  const isFresh = useRig((s) => s.sinceEdit?.fresh.includes(finding.key) ?? false);
  const [accepting, setAccepting] = useState(false);
  const [looking, setLooking] = useState<Fix | null>(null);
  const [reason, setReason] = useState('');
  const preview = usePreview(looking ? looking.edits : null);
  const sounds = finding.sounds.map((id) => rig.sounds.find((s) => s.id === id)?.name ?? id);
  const show = () => {
    const [at] = finding.subjects;
    if (at === undefined) select(null);
    else if (deviceOf(rig, at)) select({ kind: 'device', id: at });
    else if (leadOf(rig, at)) select({ kind: 'lead', id: at });
    if (finding.sounds[0]) setSound(finding.sounds[0]);
    openFindings(false);
    goToSignal();
  };
  return (
    <article className="finding" data-finding={finding.key}>
      <SeverityMark severity={finding.severity} />
      {isFresh && <span className="since-edit">new with the last edit</span>}
      <p>
        <strong>{finding.what}</strong>
      </p>
      <p>{finding.why}</p>
      <p className="faint common-text-2">
        {sounds.length === rig.sounds.length ? 'In every sound' : `In ${sounds.join(', ')}`}
      </p>
      {hangsOn.length > 0 && (
        <p className="small-print" data-hangs-on>
          Turns within what is believable of {hangsOn.map((m) => hangWords(rig, m)).join('; ')}:
          measure that first.
        </p>
      )}
      {finding.accepted !== undefined && <p>Accepted: {finding.accepted}</p>}
      <WaysOut finding={finding} ways={ways} onLook={setLooking} />
      <FindingTools
        finding={finding}
        show={show}
        setAccepting={setAccepting}
        accepting={accepting}
      />
      {accepting && (
        <form
          className="finding-card-row-2"
          onSubmit={(e) => {
            e.preventDefault();
            if (
              edit({
                edit: 'acceptFinding',
                finding: finding.key,
                reason,
                on: new Date().toISOString().slice(0, 10),
              }).ok
            )
              setAccepting(false);
          }}
        >
          <TextInput
            size="xs"
            className="fills"
            autoFocus
            aria-label="Reason for accepting"
            placeholder="Because … (kept and printed)"
            value={reason}
            onChange={(e) => setReason(e.currentTarget.value)}
          />
          <Button size="xs" type="submit" disabled={!reason.trim()}>
            Accept
          </Button>
        </form>
      )}
      {looking && preview && <PreviewPanel title={`${looking.words}:`} preview={preview} />}
    </article>
  );
}

/** Show where it is; leave it, with a reason. */
function FindingTools({
  finding,
  show,
  setAccepting,
  accepting,
}: {
  finding: Finding;
  show: () => void;
  setAccepting: Dispatch<SetStateAction<boolean>>;
  accepting: boolean;
}) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const choose = useRig((s) => s.choose);
  const devices = finding.subjects.filter((id) => deviceOf(rig, id));
  return (
    <div className="finding-card-row">
      <Button size="compact-sm" variant="default" onClick={show}>
        Show
      </Button>
      {devices.length > 1 && (
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => {
            show();
            choose(devices);
          }}
        >
          Choose its {howMany(devices.length, 'device')}
        </Button>
      )}
      {finding.accepted === undefined ? (
        <Button size="compact-sm" variant="default" onClick={() => setAccepting(!accepting)}>
          Accept …
        </Button>
      ) : (
        <Button
          size="compact-sm"
          variant="default"
          onClick={() => edit({ edit: 'reopenFinding', finding: finding.key })}
        >
          Take up again
        </Button>
      )}
    </div>
  );
}

/**
 * What cures the finding. Only what was tried on a copy and cures it is offered: first what breaks
 * nothing, then the rest with what it breaks.
 */
function WaysOut({
  finding,
  ways,
  onLook,
}: {
  finding: Finding;
  ways: Ways;
  onLook: (fix: Fix | null) => void;
}) {
  const edit = useRig((s) => s.edit);
  if (ways === 'none' || finding.accepted !== undefined) return null;
  if (ways === 'trying')
    return (
      <p className="faint common-text-2" role="status">
        Trying on a copy what cures it …
      </p>
    );
  if (!ways.length)
    return (
      <p className="faint common-text-2" data-no-way>
        {finding.rule === 'promise'
          ? 'Ways to cure other findings were tried on a copy, and none of them keeps this.'
          : 'What usually cures this was tried on a copy and does not cure it here.'}
      </p>
    );
  return (
    <div className="ways-out">
      {ways.map(({ fix, tried }) => (
        <div key={JSON.stringify(fix.edits)} data-way={isSafe(tried) ? 'safe' : 'breaks'}>
          <Button
            size="compact-sm"
            variant={isSafe(tried) ? 'filled' : 'default'}
            onClick={() => edit(fix.edits, `${fix.words} (fix)`)}
            onMouseEnter={() => onLook(fix)}
            onFocus={() => onLook(fix)}
            onMouseLeave={() => onLook(null)}
            onBlur={() => onLook(null)}
          >
            {fix.words}
          </Button>
          <div className="faint common-text-2">{outcomeWords(tried, 'cures this')}</div>
        </div>
      ))}
    </div>
  );
}

/** A figure, whose it is, and what is believable of it; one that is yes or no may be either. */
const hangWords = (rig: Rig, { device, label, unit, low, high }: ToMeasure): string => {
  const range = unit ? `${showFigure(unit, low)} to ${showFigure(unit, high)}` : 'either';
  return `${nameOf(rig, device)}, ${label} (${range}, typical)`;
};
