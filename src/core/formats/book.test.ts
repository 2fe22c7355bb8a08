import { analyse } from '../report';
import { cutList } from '../build';
import { DEMO_RIGS, touringRig } from '../demo';
import { applyEdits, jackOf, type Rig } from '../rig';
import { kindOf } from '../kinds';
import { device, rigOf } from '../testing/rigs';
import {
  bookOf,
  bookPages,
  boardSvg,
  cautionsFor,
  isOnlyHere,
  labelSheets,
  MARGIN_MM,
  PAPERS,
  rackSvg,
  readCsv,
  stageSvg,
  billCsv,
  cutListCsv,
} from '.';

const report = analyse(touringRig);
const book = bookOf(touringRig, report);
const part = (id: string) => book.find((p) => p.id === id)!;
const texts = (id: string) => JSON.stringify(part(id).blocks);

test('what a sound sets says how each thing stands in the words of its kind', () => {
  const sheets = part('settings').blocks;
  const rows = sheets.flatMap((b) => (b.is === 'table' ? b.rows.map((r) => r.slice(0, 2)) : []));
  const names = touringRig.devices.filter((d) => kindOf(d.kind).job === 'instrument');
  const said = new Set(
    rows.filter(([name]) => names.some((d) => d.name === name)).map(([, stands]) => stands),
  );
  // Nothing that is played is always on or bypassed: it is at work, in its own words, or left out.
  expect([...said].sort()).toEqual(['in use', 'running', 'sent']);
  for (const [name, stands] of rows) {
    const device = touringRig.devices.find((d) => d.name === name)!;
    const { alwaysOn, stateWords, job } = kindOf(device.kind);
    expect(stands).not.toBe('bypassed');
    expect(stands === 'always on').toBe(alwaysOn === true);
    if (stateWords && job !== 'amp') expect(stands).toBe(stateWords.on);
  }
});

describe('the book', () => {
  test('has every part that a rig is documented by', () => {
    expect(book.map((p) => p.id)).toEqual([
      'summary',
      'stage',
      'inputs',
      'walks',
      'settings',
      'wiring',
      'boards',
      'racks',
      'power',
      'midi',
      'sets',
      'cues',
      'cuts',
      'bill',
      'pack',
      'connect',
      'checklist',
      'cautions',
      'findings',
    ]);
    expect(
      bookOf(
        {
          ...touringRig,
          boards: undefined,
          racks: undefined,
          stage: undefined,
          cases: undefined,
          devices: touringRig.devices.map((d) => ({ ...d, at: undefined, rack: undefined })),
        },
        report,
      ).map((p) => p.id),
    ).not.toContain('boards');
  });
  test('says the figures of the rig at hand', () => {
    expect(texts('summary')).toContain(`${cutList(touringRig).cuts.length} leads`);
    expect(part('walks').blocks).toHaveLength(touringRig.sounds.length);
    expect(texts('power')).toContain('Mast conditioner: 5 of 8 sockets');
    expect(texts('pack')).toContain('2. Head trunk, 31.0 kg, two persons lift');
    expect(texts('pack')).toContain('spare: mains lead, 0.3 kg');
    expect(texts('settings')).toContain('Drive at half past');
    expect(texts('cues')).toContain('Kiln Drive');
    expect(texts('connect')).toMatch(/W\d\d: Stage head, speaker to Stage cabinet/);
    expect(texts('checklist')).toContain('Not before the adhesive has set');
    expect(texts('power')).toContain('centre negative');
    const inputs = part('inputs').blocks[0]!;
    expect(inputs.is === 'table' && inputs.rows.map((r) => r[1])).toContain('House, cabinet mic');
    expect(
      inputs.is === 'table' && inputs.rows.find((r) => r[1] === 'House, cabinet mic')!.slice(-1),
    ).toEqual(['off']);
  });
  test('an accepted finding stands with its reason, and not among the open ones', () => {
    const key = report.findings.find((f) => f.rule === 'noise')!.key;
    const done = applyEdits(touringRig, [
      { edit: 'acceptFinding', finding: key, reason: 'the salt hall is louder' },
    ]);
    const rig = done.ok ? done.value.rig : touringRig;
    const findings = JSON.stringify(
      bookOf(rig, analyse(rig)).find((p) => p.id === 'findings')!.blocks,
    );
    expect(findings).toContain('Accepted: the salt hall is louder');
  });
  test('cautions are those that apply', () => {
    expect(cautionsFor(touringRig, report).map((c) => c.id)).toEqual([
      'mains',
      'tubes',
      'speakers',
      'hearing',
      'radio',
      'lifting',
      'solder',
      'phantom',
    ]);
    const small = rigOf([device('b', 'boost', 'B')], []);
    expect(cautionsFor(small, analyse(small)).map((c) => c.id)).toEqual([]);
  });
  test(
    'pages: parts on pages of their own, across where they are wide, with number, ' +
      'revision and date at the foot',
    () => {
      const pages = bookPages([part('summary'), part('wiring'), part('power')], [], 'Letter', {
        rig: 'R',
        revision: 'revision 4',
        date: '2026-11-25',
      });
      expect(pages.pageSize).toBe('LETTER');
      const titles = (
        pages.content as { style?: string; pageBreak?: string; pageOrientation?: string }[]
      ).filter((c) => c.style === 'title');
      expect(titles.map((t) => [t.pageBreak, t.pageOrientation])).toEqual([
        [undefined, undefined],
        ['before', 'landscape'],
        ['before', 'portrait'],
      ]);
      const foot = (pages.footer as (a: number, b: number) => object)(2, 9);
      expect(JSON.stringify(foot)).toContain('R, revision 4, 2026-11-25');
      expect(JSON.stringify(foot)).toContain('page 2 of 9');
    },
  );
});

describe('labels at true size', () => {
  test.each(['A4', 'Letter'] as const)(
    '%s: every lead has a flag at both ends, on sheets as large as the paper less its margins',
    (paper) => {
      const sheets = labelSheets(touringRig, 'flags', paper, 'http://x');
      expect(sheets.reduce((s, x) => s + x.labels, 0)).toBe(2 * cutList(touringRig).cuts.length);
      for (const s of sheets) {
        expect([s.width, s.height]).toEqual([
          PAPERS[paper].width - 2 * MARGIN_MM,
          PAPERS[paper].height - 2 * MARGIN_MM,
        ]);
        expect(s.svg).toContain(
          `width="${s.width}mm" height="${s.height}mm" viewBox="0 0 ${s.width} ${s.height}"`,
        );
        // A flag is 80 by 10 mm, and stays on the sheet.
        const at = [...s.svg.matchAll(/translate\(([\d.]+) ([\d.]+)\)" data-label="80 10"/g)];
        expect(at).toHaveLength(s.labels);
        for (const m of at)
          expect(Number(m[1]) + 80 <= s.width && Number(m[2]) + 10 <= s.height - 12).toBe(true);
        expect(s.svg).toContain('h100M0');
      }
    },
  );
  test.each(DEMO_RIGS.map((r) => [r.id, r] as const))(
    'every flag of %s tells its code, its jack and the far jack, whole, in letters of 6 pt or more',
    (_, rig) => {
      const svg = labelSheets(rig, 'flags', 'A4', '')
        .map((s) => s.svg)
        .join('');
      const labels = svg.split('data-label=').slice(1);
      const flags = cutList(rig).cuts.flatMap(({ lead, code }) =>
        [
          [lead.from, lead.to],
          [lead.to, lead.from],
        ].map((ends) => ({ code: lead.label ?? code, ends })),
      );
      expect(labels).toHaveLength(flags.length);
      flags.forEach(({ code, ends }, i) => {
        const words = [...labels[i]!.matchAll(/<text[^>]*>([^<]*)</g)].map((m) =>
          m[1]!.replace(/&amp;/g, '&').replace(/&lt;/g, '<').replace(/&gt;/g, '>'),
        );
        const half = words.slice(0, words.length / 2).join(' ');
        expect(half.startsWith(code)).toBe(true);
        for (const end of ends) {
          const device = rig.devices.find((d) => d.id === end.device)!;
          expect(half).toContain(jackOf(device, end.jack)?.label ?? end.jack);
          // The name begins as its box is called.
          expect(half).toContain(device.name.slice(0, 1));
        }
        expect(half).not.toContain('…');
        for (const m of labels[i]!.matchAll(/font-size="([\d.]+)"/g))
          expect(Number(m[1])).toBeGreaterThanOrEqual(2.12);
      });
    },
  );
  test('strips are as wide as the controller, in pieces where the paper is narrower; panels by their sockets', () => {
    const strips = labelSheets(touringRig, 'strips', 'A4', '')[0]!.svg;
    // Skeg: 420 mm for eight switches, 52.5 mm a cell, three cells to a piece; the eight sounds and
    // songs fill two pages.
    expect([...strips.matchAll(/data-label="([\d.]+) 12"/g)].map((m) => Number(m[1]))).toEqual([
      157.5, 157.5, 105, 157.5, 157.5, 105,
    ]);
    expect(strips).toContain('Tide flat');
    const panels = labelSheets(touringRig, 'panels', 'A4', '')[0]!.svg;
    expect([...panels.matchAll(/data-label="([\d.]+) 10"/g)].map((m) => Number(m[1]))).toEqual([
      140, 140, 140,
    ]);
    expect(panels).toContain('Stage head');
    expect(labelSheets(rigOf([device('b', 'boost', 'B')], []), 'panels', 'A4', '')).toEqual([]);
  });
  test('a case label has its order, weight and a code', () => {
    const svg = labelSheets(
      touringRig,
      'cases',
      'A4',
      'http://127.0.0.1:3200/rigs/salt-and-ferry',
    )[0]!.svg;
    for (const words of ['Head trunk', '2 of 8', '31.0 kg, two persons lift', 'data-label="90 62"'])
      expect(svg).toContain(words);
    // A phone finds nothing at an address of the computer itself: the label says so.
    expect(svg).toContain('No code: this address opens on');
    const reached = labelSheets(touringRig, 'cases', 'A4', 'http://elsewhere/rigs/x')[0]!.svg;
    expect(reached).not.toContain('No code');
    expect(reached).toContain('http://elsewhere/rigs/x');
    expect(
      ['http://localhost:3200/', 'http://127.9.0.1/', 'http://[::1]:80/', '', 'nonsense'].map(
        isOnlyHere,
      ),
    ).toEqual([true, true, true, true, true]);
    expect(['http://10.0.0.7:3200/', 'https://rigs.example/'].map(isOnlyHere)).toEqual([
      false,
      false,
    ]);
  });
});

describe('drawings and tables', () => {
  test.each(DEMO_RIGS.map((r) => [r.name, r] as const))(
    '%s: every placed device is drawn, at its place',
    (_, rig) => {
      for (const b of rig.boards ?? []) {
        const svg = boardSvg(rig, b);
        for (const d of rig.devices.filter((x) => x.at?.board === b.id))
          expect(svg).toContain(`data-item="${d.id}"`);
        expect(svg).not.toContain('NaN');
      }
      for (const r of rig.racks ?? [])
        for (const d of rig.devices.filter((x) => x.rack?.rack === r.id))
          expect(rackSvg(rig, r)).toContain(`data-item="${d.id}"`);
      for (const s of rig.stage?.spots ?? [])
        expect(stageSvg(rig)).toContain(`data-item="${s.id}"`);
    },
  );
  test('names that are markup or formulas stay words', () => {
    const hostile: Rig = {
      ...touringRig,
      devices: touringRig.devices.map((d) =>
        d.id === 'kiln' ? { ...d, name: '=SUM(1)<script>' } : d,
      ),
    };
    expect(boardSvg(hostile, hostile.boards![0]!)).not.toContain('<script>');
    for (const csv of [billCsv(hostile), cutListCsv(hostile)]) {
      expect(csv.split(/\r?\n/).some((row) => /(^|,)"?=SUM/.test(row))).toBe(false);
      const read = readCsv(
        csv,
        ['what'].filter(() => csv.startsWith('\uFEFFwhat') || csv.startsWith('what')),
      );
      expect(read.ok).toBe(true);
    }
  });
});
