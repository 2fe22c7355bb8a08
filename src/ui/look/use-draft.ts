import { type KeyboardEvent, useState } from 'react';

/** What a field is given while somebody types into it. */
export interface Draft {
  /** What the field shows: what is typed, else what holds. */
  text: string;
  /** What somebody else set while this was being typed: said under the field, which stays in its place. */
  said: {
    description?: string;
    inputWrapperOrder?: ('label' | 'input' | 'description' | 'error')[];
  };
  onType: (text: string) => void;
  /** Takes what was typed, where anything was. */
  commit: () => void;
  /** Enter takes what was typed, Escape lets it go. */
  onKeyDown: (e: KeyboardEvent) => void;
}

/**
 * A text that is taken when its field is left, never while it is half typed. What holds may change
 * under the typing hand, since others work on the same rig: then the field keeps what is typed and
 * says what it would replace. A field that nobody types into always shows what holds, and writes
 * nothing when it is left. Where `take` gives `false`, what was typed stays to be mended.
 */
export function useDraft(holds: string, take: (text: string) => unknown): Draft {
  const [typed, setTyped] = useState<{ text: string; over: string } | null>(null);
  const commit = () => {
    if (!typed) return;
    if (typed.text === holds || take(typed.text) !== false) setTyped(null);
  };
  return {
    text: typed ? typed.text : holds,
    said:
      typed && typed.over !== holds
        ? {
            description: `${holds ? `Set to “${holds}”` : 'Emptied'} meanwhile. Enter keeps yours, Escape takes that.`,
            inputWrapperOrder: ['label', 'input', 'description', 'error'],
          }
        : {},
    onType: (text) => setTyped({ text, over: typed ? typed.over : holds }),
    commit,
    onKeyDown: (e) => {
      if (e.key === 'Enter') commit();
      if (e.key === 'Escape' && typed) {
        setTyped(null);
        e.stopPropagation();
      }
    },
  };
}
