import { DEMO_RIGS } from '../../../core/demo';
import { analyse } from '../../../core/report';
import { chainOf } from '../../../core/testing/rigs';
import { arrivalWords } from './arrival-words';

const arriving = [...DEMO_RIGS, chainOf(['guitar-active', 'buffer', 'console-input'])].flatMap(
  (rig) => analyse(rig).sounds.flatMap((s) => s.destinations),
);

it('says level, noise, saturation, width and time with their units; nothing is left blank', () => {
  for (const d of arriving) {
    const words = arrivalWords(d, 'dBu');
    if (!d.levelDbu) expect(words).toBe('silent');
    else
      expect(words).toMatch(
        /^−?[\d.]+ dBu, (no noise|−?[\d.]+ dB S\/N), ([\d.]+ %, )?[^,]+, [\d.]+ ms$/,
      );
  }
  expect(arriving.some((d) => d.levelDbu)).toBe(true);
});

it('leaves saturation out where there is none, with its comma', () => {
  const heard = arriving.find((d) => d.levelDbu && d.thdPercent)!;
  const bare = arrivalWords({ ...heard, thdPercent: null }, 'dBu');
  expect(bare.split(', ')).toHaveLength(4);
  expect(bare).not.toContain('%');
});
