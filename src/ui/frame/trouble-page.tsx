'use client';
import { Button, Group } from '@mantine/core';
import { IconDownload, IconHistory, IconRefresh } from '@tabler/icons-react';
import { useState } from 'react';
import { askServer, problemText } from '../keep/ask-server';

/**
 * What is shown where a rig or a part of its page cannot: the words, and the ways on. Nothing that
 * was saved is lost; `onRetry` tries the part again, and without it the page is loaded anew.
 */
export function TroublePage({
  id,
  words,
  onRetry,
}: {
  id: string | undefined;
  words: string;
  onRetry?: () => void;
}) {
  const [problem, setProblem] = useState<string | null>(null);
  const goBack = async () => {
    const reply = await askServer(`/api/rigs/${id}/back`, 'POST');
    if (reply.ok) window.location.reload();
    else setProblem(problemText(reply.problem));
  };
  return (
    <section className="trouble" role="alert" data-trouble>
      <h1>This cannot be shown</h1>
      <p>{words}</p>
      <p className="faint">
        What you did is saved, or kept in this browser until it can be. Take the rig as a file if
        you want to be sure.
      </p>
      <Group gap={8}>
        <Button
          leftSection={<IconRefresh size={16} aria-hidden />}
          onClick={onRetry ?? (() => window.location.reload())}
        >
          Reload
        </Button>
        {id !== undefined && (
          <>
            <Button
              variant="default"
              component="a"
              href={`/api/rigs/${id}/file`}
              leftSection={<IconDownload size={16} aria-hidden />}
            >
              Export this rig
            </Button>
            <Button
              variant="default"
              leftSection={<IconHistory size={16} aria-hidden />}
              onClick={() => void goBack()}
            >
              Go back one revision
            </Button>
          </>
        )}
        <a href="/">All rigs</a>
      </Group>
      {problem && <p>{problem}</p>}
    </section>
  );
}
