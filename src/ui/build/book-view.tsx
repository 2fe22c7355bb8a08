'use client';
import { Button, Checkbox, Group, SegmentedControl } from '@mantine/core';
import { memo, useMemo, useState } from 'react';
import { type Block, bookOf, type BookPart, drawnOn } from '../../core/formats';
import { useDocument, useRevision, useRig } from '../store/use-rig';
import { useToday } from '../look/use-today';
import { usePrinting } from './use-printing';

/**
 * Everything about the rig on paper, made from the rig as it is: chosen parts, A4 or Letter, as a
 * PDF in one press or from the browser.
 */
export function BookView() {
  const rig = useDocument();
  const report = useRig((s) => s.report);
  const units = useRig((s) => s.units);
  const [paper, setPaper] = useState<'A4' | 'Letter'>('A4');
  const [off, setOff] = useState<string[]>([]);
  const { print, printing } = usePrinting();
  const revision = useRevision();
  const parts = useMemo(() => bookOf(rig, report, units), [rig, report, units]);
  const chosen = parts.filter((p) => !off.includes(p.id));
  const today = useToday();
  const foot = `${rig.name}, ${revision}, ${today}`.replace(/["\\\n]/g, ' ');
  const page = paper === 'A4' ? 'A4' : 'letter';
  return (
    <div className="scroll book common-box" data-place="book">
      <style>
        {`@page wide { size: ${page} landscape; } @page { size: ${page}; margin: 15mm 13mm ` +
          `17mm; @bottom-left { content: "${foot}"; font-size: 8pt; } @bottom-right { content: ` +
          '"page " counter(page) " of " counter(pages); font-size: 8pt; } }'}
      </style>
      <Group gap="6px 14px" align="end" className="no-print">
        <SegmentedControl
          size="xs"
          aria-label="Paper"
          data={['A4', 'Letter']}
          value={paper}
          onChange={(v) => setPaper(v)}
        />
        <Button
          size="xs"
          disabled={printing || !chosen.length}
          onClick={() => void print({ paper, parts: chosen.map((p) => p.id), labels: [] })}
        >
          {printing ? 'Making the PDF …' : 'Keep as PDF'}
        </Button>
        <Button size="xs" variant="default" onClick={() => window.print()}>
          Print from the browser
        </Button>
        <Button
          size="compact-xs"
          variant="subtle"
          onClick={() => setOff(off.length ? [] : parts.map((p) => p.id))}
        >
          {off.length ? 'All parts' : 'No part'}
        </Button>
        {parts.map((p) => (
          <Checkbox
            key={p.id}
            size="xs"
            label={p.title}
            checked={!off.includes(p.id)}
            onChange={(e) =>
              setOff(e.currentTarget.checked ? off.filter((x) => x !== p.id) : [...off, p.id])
            }
          />
        ))}
      </Group>
      <header>
        <h1 className="book-view-gap">{rig.name}</h1>
        <p className="faint book-view-gap-2">
          As it stood on {today}, {revision}.
        </p>
      </header>
      {chosen.map((p) => (
        <Part key={p.id} part={p} />
      ))}
    </div>
  );
}

const Part = memo(function Part({ part }: { part: BookPart }) {
  return (
    <section className="book-part" data-part={part.id} data-wide={part.wide}>
      <h2>{part.title}</h2>
      {part.blocks.map((b, i) => (
        <BlockView key={i} block={b} />
      ))}
    </section>
  );
});

/** A sheet that lies across, less its margins, in points: what the browser prints drawings on. */
const PAGE = { width: 770, height: 500 };

function BlockView({ block }: { block: Block }) {
  switch (block.is) {
    case 'words':
      return <p className="common-gap">{block.words}</p>;
    case 'heading':
      return <h3>{block.words}</h3>;
    // Vector drawings without the head that only a file needs, on as many pages as on paper.
    case 'drawing':
      return drawnOn(block, PAGE).map(({ svg }, i) => (
        <div
          key={i}
          className="book-drawing"
          dangerouslySetInnerHTML={{ __html: svg.replace(/^<\?xml[^>]*\?>\s*/, '') }}
        />
      ));
    case 'list': {
      const items = block.items.map((words, i) => <li key={i}>{words}</li>);
      return block.ordered ? (
        <ol>{items}</ol>
      ) : (
        <ul className={block.boxes ? 'boxes' : undefined}>{items}</ul>
      );
    }
    case 'table':
      return block.rows.length === 0 ? (
        <p>Nothing.</p>
      ) : (
        <table className="sheet-table figures">
          <thead>
            <tr>
              {block.head.map((h, i) => (
                <th key={i}>{h}</th>
              ))}
            </tr>
          </thead>
          <tbody>
            {block.rows.map((r, i) => (
              <tr key={i}>
                {r.map((c, k) => (
                  <td key={k}>{k === block.bold ? <strong>{c}</strong> : c}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      );
  }
}
