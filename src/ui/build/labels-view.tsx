'use client';
import { sure } from '../../core/outcome';
import { Button, Group, SegmentedControl, TextInput } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { useMemo, useState } from 'react';
import { isOnlyHere, type LabelKind, labelSheets, type Paper } from '../../core/formats';
import { useDocument } from '../store/use-rig';
import { usePrinting } from './use-printing';

const KINDS: { value: LabelKind; label: string; none: string }[] = [
  {
    value: 'flags',
    label: 'Lead flags',
    none: 'There are no leads yet: connect jacks under Signal.',
  },
  {
    value: 'strips',
    label: 'Switch strips',
    none: 'Nothing stands on a board, and there is no controller.',
  },
  { value: 'panels', label: 'Panel strips', none: 'There is no connector panel in this rig.' },
  {
    value: 'cases',
    label: 'Cases',
    none: 'Nothing is carried yet: add a board, a rack or a case.',
  },
];

/**
 * Labels at true size: flags for leads, strips for switches and panels, case labels with a code
 * that opens the rig.
 */
export function LabelsView() {
  const rig = useDocument();
  const [kind, setKind] = useState<LabelKind>('flags');
  const [paper, setPaper] = useState<Paper>('A4');
  const { print, printing } = usePrinting();
  const here = typeof location === 'undefined' ? '' : location.origin;
  const [typed, setTyped] = useLocalStorage({ key: 'yantrel address', defaultValue: '' });
  const address =
    /^https?:\/\//.test(typed) && URL.canParse(typed) ? typed.replace(/\/+$/, '') : here;
  const link = `${address}/rigs/${rig.id}`;
  const sheets = useMemo(() => labelSheets(rig, kind, paper, link), [rig, kind, paper, link]);
  const chosen = sure(KINDS.find((k) => k.value === kind));
  return (
    <div className="scroll common-box" data-place="labels">
      <style>{`@page { size: ${paper === 'A4' ? 'A4' : 'letter'}; margin: 12.9mm; }`}</style>
      <Group gap={10} className="no-print">
        <SegmentedControl
          size="xs"
          aria-label="Which labels"
          data={KINDS}
          value={kind}
          onChange={(v) => setKind(v)}
        />
        <SegmentedControl
          size="xs"
          aria-label="Paper"
          data={['A4', 'Letter']}
          value={paper}
          onChange={(v) => setPaper(v)}
        />
        <Button
          size="xs"
          disabled={printing || !sheets.length}
          onClick={() =>
            void print({ paper, parts: [], labels: [kind], ...(address && { address }) })
          }
        >
          {printing ? 'Making the PDF …' : 'Keep as PDF'}
        </Button>
        <Button
          size="xs"
          variant="default"
          disabled={!sheets.length}
          onClick={() => window.print()}
        >
          Print from the browser
        </Button>
        <span className="small-print" data-label-sum>
          {sheets.reduce((s, x) => s + x.labels, 0)} labels on {sheets.length}{' '}
          {sheets.length === 1 ? 'sheet' : 'sheets'}. Print at 100 %.
        </span>
      </Group>
      {kind === 'cases' && sheets.length > 0 && (
        <TextInput
          className="no-print"
          size="xs"
          maw={520}
          label="Address at which phones and other computers reach this Yantrel"
          placeholder={here}
          value={typed}
          onChange={(e) => setTyped(e.currentTarget.value)}
          description={
            isOnlyHere(link)
              ? `${address} opens on this computer only, so the labels have no code.`
              : `The code on each case opens ${link}.`
          }
        />
      )}
      {sheets.length === 0 && <div className="empty common-gap-6">{chosen.none}</div>}
      {sheets.map((s, i) => (
        <div
          key={i}
          className="label-sheet"
          dangerouslySetInnerHTML={{ __html: s.svg.replace(/^<\?xml[^>]*\?>\s*/, '') }}
        />
      ))}
    </div>
  );
}
