'use client';
import { Button, Drawer, SegmentedControl, Select, TextInput } from '@mantine/core';
import { useState } from 'react';
import { type Finding, SEVERITIES } from '../../core/findings/finding';
import { ORDER_RULES } from '../../core/order';
import { deviceOf, leadOf, type Stance } from '../../core/rig';
import { SeverityMark } from '../look/severity';
import { PreviewPanel } from '../signal/preview-panel';
import { usePreview } from '../signal/use-preview';
import { useDocument, useRig } from '../store/use-rig';

/** Counts by severity; opens the findings. */
export function FindingsButton() {
  const findings = useRig((s) => s.report.findings);
  const openFindings = useRig((s) => s.openFindings);
  const open = findings.filter((f) => f.accepted === undefined);
  return (
    <button
      type="button"
      className="sound findings-button-box"

      onClick={() => openFindings(true)}
      aria-label={
        'Findings: ' +
        SEVERITIES.map((s) => `${open.filter((f) => f.severity === s).length} ${s}`).join(', ')
      }
    >
      {open.length === 0 && 'no findings'}
      {SEVERITIES.map((s) => {
        const count = open.filter((f) => f.severity === s).length;
        return count > 0 && <SeverityMark key={s} severity={s} count={count} />;
      })}
    </button>
  );
}

/**
 * All findings, worst first, with reasons, fixes and what was accepted; and the schools that order
 * advice follows.
 */
export function FindingsDrawer({ goToSignal }: { goToSignal: () => void }) {
  const open = useRig((s) => s.findingsOpen);
  const openFindings = useRig((s) => s.openFindings);
  const findings = useRig((s) => s.report.findings);
  const [part, setPart] = useState('open');
  const list = findings.filter((f) => (f.accepted !== undefined) === (part === 'accepted'));
  return (
    <Drawer
      opened={open}
      onClose={() => openFindings(false)}
      position="right"
      size={560}
      title="Findings"
    >
      <SegmentedControl
        fullWidth
        size="xs"
        value={part}
        onChange={setPart}
        data={[
          {
            value: 'open',
            label: `Open (${findings.filter((f) => f.accepted === undefined).length})`,
          },
          {
            value: 'accepted',
            label: `Accepted (${findings.filter((f) => f.accepted !== undefined).length})`,
          },
          { value: 'schools', label: 'Order rules' },
        ]}
      />
      {part === 'schools' ? (
        <Schools />
      ) : list.length ? (
        list.map((f) => <FindingCard key={f.key} finding={f} goToSignal={goToSignal} />)
      ) : (
        <div className="empty findings-drawer-gap">
          {part === 'open' ? 'Nothing to say against this rig.' : 'No finding has been accepted.'}
        </div>
      )}
    </Drawer>
  );
}

function FindingCard({ finding, goToSignal }: { finding: Finding; goToSignal: () => void }) {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  const select = useRig((s) => s.select);
  const setSound = useRig((s) => s.setSound);
  const openFindings = useRig((s) => s.openFindings);
  const [accepting, setAccepting] = useState(false);
  const [looking, setLooking] = useState(false);
  const [reason, setReason] = useState('');
  const preview = usePreview(looking && finding.fix ? finding.fix.edits : null);
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
      <p>
        <strong>{finding.what}</strong>
      </p>
      <p>{finding.why}</p>
      <p className="faint common-text-2">
        {sounds.length === rig.sounds.length ? 'In every sound' : `In ${sounds.join(', ')}`}
      </p>
      {finding.accepted !== undefined && <p>Accepted: {finding.accepted}</p>}
      <div className="finding-card-row">
        {finding.fix && (
          <Button
            size="compact-sm"
            onClick={() => edit(finding.fix!.edits, `${finding.fix!.words} (fix)`)}
            onMouseEnter={() => setLooking(true)}
            onFocus={() => setLooking(true)}
            onMouseLeave={() => setLooking(false)}
            onBlur={() => setLooking(false)}
          >
            {finding.fix.words}
          </Button>
        )}
        {finding.others?.map((f) => (
          <Button
            key={f.words}
            size="compact-sm"
            variant="default"
            onClick={() => edit(f.edits, `${f.words} (fix)`)}
          >
            {f.words}
          </Button>
        ))}
        <Button size="compact-sm" variant="default" onClick={show}>
          Show
        </Button>
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
      {preview && <PreviewPanel title={`${finding.fix!.words}:`} preview={preview} />}
    </article>
  );
}

/** The stance of this rig on each order rule. */
function Schools() {
  const rig = useDocument();
  const edit = useRig((s) => s.edit);
  return (
    <div>
      <p className="small-print">
        Order advice is never a lock. For each thing, follow the usual school, the other one, or
        neither, with your reason.
      </p>
      {ORDER_RULES.map((r) => {
        const stance = rig.order?.stances?.[r.id];
        const set = (s: Stance) => edit({ edit: 'setStance', rule: r.id, stance: s });
        return (
          <div key={r.id} className="finding" data-rule={r.id}>
            <strong>{r.thing}</strong>
            <Select
              size="xs"
              aria-label={`School for ${r.thing}`}
              allowDeselect={false}
              value={stance?.stance ?? (r.quiet ? null : 'follow')}
              placeholder="not checked: it depends on what it is for"
              data={[
                { value: 'follow', label: `usual: ${r.main}` },
                { value: 'other', label: `other school: ${r.other}` },
                { value: 'ignore', label: 'ignore, because …' },
              ]}
              onChange={(v) => v && set({ ...stance, stance: v })}
            />
            {stance?.stance === 'ignore' && (
              <TextInput
                size="xs"
                mt={4}
                aria-label={`Reason for ignoring ${r.thing}`}
                placeholder="because …"
                defaultValue={stance.because ?? ''}
                onBlur={(e) =>
                  e.currentTarget.value !== (stance.because ?? '') &&
                  set({ stance: 'ignore', because: e.currentTarget.value })
                }
              />
            )}
            <div className="faint common-text-2">{r.why}</div>
          </div>
        );
      })}
    </div>
  );
}
