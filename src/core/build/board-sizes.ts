import type { Board } from '../rig/schema';

/** Boards in sizes that are common, in mm. Rails run from side to side; a plate has openings instead. */
export const BOARD_SIZES: {
  id: string;
  label: string;
  board: Pick<Board, 'width' | 'depth' | 'rails' | 'raised' | 'under' | 'grams'>;
}[] = [
  {
    id: 'small',
    label: 'Small, 400 by 180 mm, three rails',
    board: { width: 400, depth: 180, rails: rails(180, 3), grams: 1400 },
  },
  {
    id: 'medium',
    label: 'Medium, 600 by 320 mm, four rails, rear row raised',
    board: {
      width: 600,
      depth: 320,
      rails: rails(320, 4),
      raised: [{ y: 0, depth: 150, by: 40 }],
      under: 50,
      grams: 2900,
    },
  },
  {
    id: 'large',
    label: 'Large, 800 by 420 mm, five rails, rear row raised',
    board: {
      width: 800,
      depth: 420,
      rails: rails(420, 5),
      raised: [{ y: 0, depth: 180, by: 50 }],
      under: 60,
      grams: 4600,
    },
  },
  {
    id: 'wide',
    label: 'Wide, 1000 by 400 mm, five rails, rear row raised',
    board: {
      width: 1000,
      depth: 400,
      rails: rails(400, 5),
      raised: [{ y: 0, depth: 170, by: 50 }],
      under: 60,
      grams: 5800,
    },
  },
  {
    id: 'plate',
    label: 'Flat plate, 600 by 300 mm, one row of openings',
    board: { width: 600, depth: 300, rails: [{ y: 145, depth: 10 }], grams: 2200 },
  },
];

function rails(depth: number, count: number): Board['rails'] {
  const gap = (depth - count * 40) / (count - 1);
  return Array.from({ length: count }, (_, i) => ({ y: Math.round(i * (40 + gap)), depth: 40 }));
}
