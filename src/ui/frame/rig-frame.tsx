'use client';
import { ActionIcon, Group, Menu, Tooltip, useMantineColorScheme } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { useSpotlight } from '@mantine/spotlight';
import {
  IconArrowBackUp,
  IconArrowForwardUp,
  IconCommand,
  IconDots,
  IconHelp,
} from '@tabler/icons-react';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { usePathname, useRouter } from 'next/navigation';
import { type Dispatch, type ReactNode, type SetStateAction, Suspense, useState } from 'react';
import type { Keeper, Question } from '../keep/keeper';
import { saveRigFile } from '../look/save-file';
import { useDrawn, useRig, useRigStore } from '../store/use-rig';
import { Contained } from './contained';
import { FindingsButton } from './findings-button';
import { Others } from './others';
import { palette, paletteStore } from './palette-store';
import { keyOf, pathOf, PLACE_IDS, PLACES } from './place-list';
import { SaveMark } from './save-mark';
import { Address } from './use-address';
import { useKeys } from './use-keys';
import { HeldKeys } from '../look/held-keys';
import { fetchSoon, laterPart } from '../look/later';
import { WhenFirst } from '../look/when-first';

// What opens over the page comes after what is in sight.
const FindingsDrawer = dynamic(
  laterPart('findings', () => import('./findings-drawer').then((m) => m.FindingsDrawer)),
  { ssr: false },
);
const Palette = dynamic(
  laterPart('palette', () => import('./palette').then((m) => m.Palette)),
  { ssr: false, loading: HeldKeys },
);
const QuestionDialog = dynamic(
  laterPart('question', () => import('./question-dialog').then((m) => m.QuestionDialog)),
  { ssr: false },
);
const RigSettings = dynamic(
  laterPart('settings', () => import('./rig-settings').then((m) => m.RigSettings)),
  { ssr: false },
);
const Shortcuts = dynamic(
  laterPart('keys', () => import('./shortcuts').then((m) => m.Shortcuts)),
  { ssr: false },
);

/** The keys of the first ten sounds. */
const DIGITS = [...'1234567890'];

/** What is the same everywhere in a rig: its name, the places, the sounds, findings, undo, the save mark. */
export function RigFrame({
  keeper,
  question,
  children,
}: {
  keeper: Keeper | null;
  question: Question | null;
  children: ReactNode;
}) {
  const id = useRig((s) => s.history.rig.id);
  const store = useRigStore();
  const path = usePathname();
  const router = useRouter();
  const { setSound, undo, redo, openFindings, setNotice } = store.getState();
  const findingsOpen = useRig((s) => s.findingsOpen);
  const [keys, setKeys] = useState(false);
  const { opened: finding } = useSpotlight(paletteStore);
  const { toggleColorScheme } = useMantineColorScheme();
  // Wherever the focus is: a field that is being typed in, too.
  useHotkeys([['mod+K', palette.open]], [], true);
  useKeys([
    ...DIGITS.map((digit, i): [string, () => void] => [
      digit,
      () => {
        const sound = store.getState().history.rig.sounds[i];
        if (sound) setSound(sound.id);
      },
    ]),
    ...PLACE_IDS.map((p): [string, () => void] => [keyOf(p), () => router.push(pathOf(id, p))]),
    ['mod+z', undo],
    ['mod+y', redo],
    ['mod+shift+z', redo],
    ['f', () => openFindings(true)],
    ['d', toggleColorScheme],
    ['shift+?', () => setKeys(true)],
    ['?', () => setKeys(true)],
  ]);
  const exportFile = () => saveRigFile(store.getState().history.rig);
  return (
    <div className="frame">
      <Suspense>
        <Address />
      </Suspense>
      <FrameTop
        path={path}
        keeper={keeper}
        setKeys={setKeys}
        exportFile={exportFile}
        toggleColorScheme={toggleColorScheme}
      />
      <SoundsBar setSound={setSound} setNotice={setNotice} />
      <main id="place" className="place">
        <Contained id={id} part={path}>
          {children}
        </Contained>
      </main>
      <WhenFirst wanted={findingsOpen}>
        <FindingsDrawer goToSignal={() => router.push(pathOf(id, 'signal'))} />
      </WhenFirst>
      <WhenFirst wanted={finding}>
        <Palette
          onShortcuts={() => setKeys(true)}
          onScheme={toggleColorScheme}
          onExport={exportFile}
        />
      </WhenFirst>
      <WhenFirst wanted={keys}>
        <Shortcuts opened={keys} onClose={() => setKeys(false)} />
      </WhenFirst>
      {question && <QuestionDialog question={question} keeper={keeper} />}
    </div>
  );
}

/** The sounds, to be chosen. */
function SoundsBar({
  setSound,
  setNotice,
}: {
  setSound: (id: string) => void;
  setNotice: (notice: string | null) => void;
}) {
  const sounds = useDrawn((rig) => rig.sounds.map(({ id, name, notes }) => ({ id, name, notes })));
  const sound = useRig((s) => s.sound);
  const notice = useRig((s) => s.notice);
  return (
    <div className="sounds-bar" role="group" aria-label="Sounds">
      {sounds.map((s, i) => (
        <button
          key={s.id}
          type="button"
          className="sound"
          data-digit={DIGITS[i]}
          aria-pressed={s.id === sound}
          title={s.notes}
          onClick={() => setSound(s.id)}
        >
          {DIGITS[i] && <kbd>{DIGITS[i]}</kbd>}
          {s.name}
        </button>
      ))}
      {sounds.length === 0 && <span className="faint">No sounds yet: add one under Sounds.</span>}
      {notice && (
        <span role="alert" className="rig-frame-text-2">
          {notice}{' '}
          <button type="button" className="sound" onClick={() => setNotice(null)}>
            Close
          </button>
        </span>
      )}
    </div>
  );
}

/** The head of every view of a rig: its name, places, who else is here, and the tools. */
function FrameTop({
  path,
  keeper,
  setKeys,
  exportFile,
  toggleColorScheme,
}: {
  path: string;
  keeper: Keeper | null;
  setKeys: Dispatch<SetStateAction<boolean>>;
  exportFile: () => void;
  toggleColorScheme: () => void;
}) {
  const { id: rig, name } = useDrawn(({ id, name }) => ({ id, name }));
  return (
    <header className="frame-top">
      <a className="skip" href="#place">
        Skip to the work
      </a>
      <Link href="/" className="faint rig-frame-text">
        Rigs
      </Link>
      <span className="frame-name" title={name}>
        {name}
      </span>
      <nav className="places" aria-label="Places">
        {PLACE_IDS.map((id) => (
          <Link
            key={id}
            href={pathOf(rig, id)}
            prefetch
            onPointerEnter={() => fetchSoon(id)}
            onFocus={() => fetchSoon(id)}
            aria-current={path.endsWith(`/${id}`) ? 'page' : undefined}
          >
            {PLACES[id].label}
          </Link>
        ))}
      </nav>
      <FindingsButton />
      <Others />
      <SaveMark onRetry={() => keeper?.tryNow()} />
      <Undoing />
      <Tooltip label="Find and do anything (Ctrl K)">
        <ActionIcon
          variant="default"
          aria-label="Find and do anything"
          onClick={() => palette.open()}
        >
          <IconCommand size={17} />
        </ActionIcon>
      </Tooltip>
      <Tooltip label="Keys (?)">
        <ActionIcon variant="default" aria-label="Keys" onClick={() => setKeys(true)}>
          <IconHelp size={17} />
        </ActionIcon>
      </Tooltip>
      <Menu position="bottom-end">
        <Menu.Target>
          <ActionIcon variant="default" aria-label="More">
            <IconDots size={17} />
          </ActionIcon>
        </Menu.Target>
        <Menu.Dropdown>
          <Menu.Item onClick={exportFile}>Export as a file</Menu.Item>
          <Menu.Item onClick={() => window.print()}>Print this view</Menu.Item>
          <Menu.Item onClick={toggleColorScheme}>Light or dark sheet (D)</Menu.Item>
          <RigSettings />
        </Menu.Dropdown>
      </Menu>
    </header>
  );
}

/** Back and forth through what was done here. */
function Undoing() {
  const { undo, redo } = useRigStore().getState();
  const past = useRig((s) => s.history.past.at(-1)?.words);
  const future = useRig((s) => s.history.future[0]?.words);
  return (
    <Group gap={14} wrap="nowrap">
      <Tooltip label={past ? `Undo: ${past}` : 'Nothing to undo'}>
        <ActionIcon variant="default" aria-label="Undo" disabled={!past} onClick={undo}>
          <IconArrowBackUp size={17} />
        </ActionIcon>
      </Tooltip>
      <Tooltip label={future ? `Redo: ${future}` : 'Nothing to redo'}>
        <ActionIcon variant="default" aria-label="Redo" disabled={!future} onClick={redo}>
          <IconArrowForwardUp size={17} />
        </ActionIcon>
      </Tooltip>
    </Group>
  );
}
