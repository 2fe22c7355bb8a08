import { digest } from '../testing/digest';
import { DEMO_RIGS, EXAMPLE_SHEETS } from '.';

/** Pictures, papers and the examples are made from them: a change here is meant, or a slip. */
test('the demo rigs are what they were', () =>
  expect(DEMO_RIGS.map((rig) => `${rig.id} ${digest(rig)}`)).toMatchSnapshot());

test('the example sheets are what they were', () =>
  expect(EXAMPLE_SHEETS.map((sheet) => `${sheet.id} ${digest(sheet)}`)).toMatchSnapshot());
