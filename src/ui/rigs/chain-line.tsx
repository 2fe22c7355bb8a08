'use client';
import { Button, Group, TextInput } from '@mantine/core';
import { type ReadChain, rigOfChain } from '../../core/start';
import { freshId, type Sheet } from '../../core/rig';

/** What a line of a chain comes to, under the name that the rig has; sheets are found before kinds. */
export const readLine = (line: string, name: string, sheets: readonly Sheet[]): ReadChain =>
  rigOfChain(line, { id: freshId(name || 'rig', []), name: name.trim() || 'New rig', sheets });

/** A rig typed as one line: what is not understood is marked, and the nearest kinds are a press away. */
export function ChainLine({
  line,
  read,
  onLine,
}: {
  line: string;
  read: ReadChain | null;
  onLine: (line: string) => void;
}) {
  const lost = read?.items.filter((i) => i.kind === undefined) ?? [];
  return (
    <div data-chain-line>
      <TextInput
        label="Type a chain"
        description="[ ] is a loop, ( | ) are ways side by side. Or answer the questions."
        placeholder="baritone > wireless > tuner > comp > low drive > delay stereo > 2 x direct box > house"
        value={line}
        maxLength={2000}
        onChange={(e) => onLine(e.currentTarget.value)}
        error={read?.broken && `After ${read.broken.at} letters: ${read.broken.what}.`}
      />
      {lost.length > 0 && (
        <p className="chain-line-read" aria-label="What was read">
          <Marked line={line} read={read} />
        </p>
      )}
      {lost.map((i) => (
        <Group key={`${i.from}`} gap={6} mt={4} data-lost={i.words}>
          <span>
            “{i.words}” is no kind that is known{i.guesses.length > 0 ? '; near:' : '.'}
          </span>
          {i.guesses.map((g) => (
            <Button
              key={g.id}
              size="compact-xs"
              variant="default"
              onClick={() =>
                onLine(`${line.slice(0, i.from)}${g.name.toLowerCase()}${line.slice(i.to)}`)
              }
            >
              {g.name}
            </Button>
          ))}
        </Group>
      ))}
      {read?.notes.map((note) => (
        <p key={note} className="faint chain-line-note">
          {note}.
        </p>
      ))}
    </div>
  );
}

/** The line with what is not understood underlined. */
function Marked({ line, read }: { line: string; read: ReadChain | null }) {
  const lost = (read?.items.filter((i) => i.kind === undefined) ?? []).sort(
    (a, b) => a.from - b.from,
  );
  const ends = [0, ...lost.map((i) => i.to)];
  return (
    <>
      {lost.map((i, n) => (
        <span key={i.from}>
          {line.slice(ends[n], i.from)}
          <u className="chain-line-lost">{line.slice(i.from, i.to)}</u>
        </span>
      ))}
      {line.slice(ends.at(-1))}
    </>
  );
}
