import type { Board, Device, Lead, Rack, Rig } from '../rig/schema';

type Places = Record<string, [x: number, y: number, under?: boolean]>;
type Mounts = Record<string, [unit: number, x?: number, rear?: boolean]>;
type Gear = Record<string, NonNullable<Device['gear']>>;

const railsAt = (...ys: number[]): Board['rails'] => ys.map((y) => ({ y, depth: 40 }));

/** Puts devices on a board, into a rack, and notes what is known of the units. */
const carried = (
  devices: Rig['devices'],
  board: string,
  at: Places,
  rack = '',
  mounts: Mounts = {},
  gear: Gear = {},
): Rig['devices'] =>
  devices.map((d) => ({
    ...d,
    ...(at[d.id] && {
      at: { board, x: at[d.id]![0], y: at[d.id]![1], ...(at[d.id]![2] && { under: true }) },
    }),
    ...(mounts[d.id] && {
      rack: {
        rack,
        unit: mounts[d.id]![0],
        ...(mounts[d.id]![1] !== undefined && { x: mounts[d.id]![1] }),
        ...(mounts[d.id]![2] && { rear: true }),
      },
    }),
    ...(gear[d.id] && { gear: { ...gear[d.id], ...d.gear } }),
  }));

const unit = (
  serial: string,
  value: number,
  grams?: number,
  owned = true,
): NonNullable<Device['gear']> => ({
  serial,
  owner: 'Iseult Brannoch',
  value,
  owned,
  ...(grams !== undefined && { grams }),
});
const spots = (list: Record<string, [number, number]>) =>
  Object.entries(list).map(([id, [x, y]]) => ({ id, x, y }));

const tideRack: Rack = {
  id: 'tide-rack',
  name: 'Tide rack',
  units: 12,
  depth: 450,
  grams: 9500,
  wheels: true,
};

/** How the touring rig is built and carried. */
export const touringBuilt = (rig: Rig): Rig => ({
  ...rig,
  devices: carried(
    rig.devices,
    'deck-board',
    {
      tuner: [857, 35],
      comp: [737, 35],
      sub: [567, 35],
      brine: [447, 35],
      kiln: [327, 35],
      flare: [207, 35],
      vesk: [85, 35],
      swell: [64, 190],
      skeg: [362, 290],
      supply: [430, 200, true],
    },
    'tide-rack',
    {
      mast: [2],
      ears: [11, 0],
      tech: [11, 225],
      tracks: [10, 0],
      radio: [8, 0],
      join: [8, 110],
      fork: [8, 190],
      heads: [8, 270],
      tdi: [8, 360],
      sim: [6, 0],
      drift: [6, 130],
      echo: [6, 260],
      dome: [4, 0],
      rsupply: [4, 120],
      wsupply: [4, 285],
      hatch: [1, undefined, true],
    },
    {
      bari: unit('TW-0031', 2900, 3900),
      steel: unit('TW-0102', 1300, 3400),
      kiln: unit('K-2207', 190),
      brine: unit('B-1180', 170),
      dome: unit('DR-0417', 420),
      echo: unit('GE-0093', 380),
      head: unit('OA-5512', 2100),
      deck: unit('OA-6001', 2600),
      skeg: unit('PW-0815', 520),
      radio: unit('SK-3340', 640),
      sim: unit('', 310, undefined, false),
    },
  ),
  boards: [
    {
      id: 'deck-board',
      name: 'Deck board',
      width: 1000,
      depth: 450,
      rails: railsAt(0, 110, 205, 300, 410),
      raised: [{ y: 0, depth: 155, by: 50 }],
      under: 60,
      grams: 6200,
    },
  ],
  racks: [tideRack],
  cases: [
    { id: 'board-case', name: 'Board case', grams: 7400, holds: ['deck-board'] },
    { id: 'head-trunk', name: 'Head trunk', grams: 11_000, holds: ['head'] },
    { id: 'deck-trunk', name: 'Deck trunk', grams: 11_000, holds: ['deck'] },
    { id: 'cab-cover', name: 'Stage cabinet, cover', grams: 1500, holds: ['cab'] },
    { id: 'deck-cover', name: 'Deck cabinet, cover', grams: 1500, holds: ['deckcab'] },
    { id: 'strings', name: 'Instrument trunk', grams: 9000, holds: ['bari', 'steel'] },
    { id: 'lead-trunk', name: 'Lead trunk', grams: 6000, holds: ['mic', 'mic2', 'purser'] },
  ],
  looms: [{ id: 'long-loom', name: 'Long loom', leads: ['l04', 'l11', 'm02'], mains: true }],
  stage: {
    width: 8,
    depth: 6,
    spots: spots({
      'deck-board': [4, 4.5],
      'tide-rack': [6.2, 2.2],
      head: [5, 1.5],
      cab: [5, 0.8],
      mic: [4.1, 1.3],
      mic2: [5.9, 1],
      deck: [2.8, 1.5],
      deckcab: [2.8, 0.8],
      steel: [5, 3.4],
      purser: [3, 4.1],
    }),
    marks: [
      { id: 'iseult', words: 'Iseult', x: 4, y: 5.3 },
      { id: 'odd', words: 'Odd', x: 7.3, y: 2.2 },
      { id: 'mains', words: 'mains, 16 A', x: 7.3, y: 0.6 },
    ],
  },
  tour: { countries: ['NO', 'GB', 'FO'] },
  limits: { grams: 205_000, boardWidth: 1050, price: 15_000, watts: 1500, hours: 16 },
  making: {
    slack: 0.05,
    step: 0.05,
    perJoint: 4,
    perLead: 6,
    perTie: 0.5,
    metrePrice: 2,
    plugPrice: 4,
  },
});

/** How the fly rig is built and carried: one case that goes into the hold, plugs that lie flat. */
export const flyBuilt = (rig: Rig): Rig => {
  const at: Places = {
    tap: [733, 30],
    buf: [618, 30],
    oct: [466, 30],
    trem: [330, 30],
    rust: [244, 30],
    tar: [142, 30],
    foot: [723, 160],
    guest: [637, 300],
    mist: [485, 300],
    hull: [349, 300],
    buoy: [197, 300],
    hold: [45, 300],
    supply: [0, 20, true],
  };
  const flat = (l: Lead): Lead =>
    at[l.from.device] && at[l.to.device] ? { ...l, plugs: { from: 'flat', to: 'flat' } } : l;
  return {
    ...rig,
    devices: carried(
      rig.devices,
      'fly-board',
      at,
      '',
      {},
      {
        mando: unit('TW-0077', 2200, 2600),
        hold: unit('DR-0417', 420),
        hull: unit('HS-0009', 340),
      },
    ),
    leads: rig.leads.map(flat),
    boards: [
      {
        id: 'fly-board',
        name: 'Fly board',
        width: 855,
        depth: 420,
        rails: railsAt(0, 95, 190, 285, 380),
        raised: [{ y: 0, depth: 150, by: 50 }],
        under: 60,
        grams: 4600,
      },
    ],
    cases: [
      {
        id: 'fly-case',
        name: 'Fly case',
        grams: 6100,
        width: 930,
        depth: 500,
        height: 200,
        holds: ['fly-board', 'needle', 'di1', 'di2'],
      },
      { id: 'gig-bag', name: 'Mandolin case', grams: 3200, holds: ['mando'] },
    ],
    stage: {
      width: 6,
      depth: 4,
      spots: spots({ 'fly-board': [3, 3.2], di1: [2.2, 2.6], di2: [2.0, 2.8], mando: [3.4, 3.6] }),
      marks: [{ id: 'player', words: 'Iseult', x: 3, y: 3.8 }],
    },
    tour: { countries: ['FO', 'US', 'JP'] },
    limits: { grams: 34_000, boardWidth: 900, hours: 10 },
  };
};

const HYBRID_OUTLETS: Record<string, [supply: string, outlet: string]> = {
  comp: ['psu', '1'],
  tee: ['psu', '2'],
  ash: ['psu', '3'],
  slag: ['psu', '4'],
  moth: ['psu', '5'],
  vesk: ['psu', '6'],
  comet: ['psu', '7'],
  wheel: ['psu', '8'],
  loops: ['psu2', '1'],
  lode: ['psu2', '3'],
};
const withSupplies = (devices: Rig['devices']): Rig['devices'] =>
  devices.map((d) =>
    HYBRID_OUTLETS[d.id]
      ? { ...d, supply: { device: HYBRID_OUTLETS[d.id]![0], outlet: HYBRID_OUTLETS[d.id]![1] } }
      : d,
  );

/** How the hybrid rig is built. */
export const hybridBuilt = (rig: Rig): Rig => ({
  ...rig,
  devices: carried(withSupplies(rig.devices), 'dome-board', {
    comp: [761, 45],
    tee: [641, 40],
    loops: [128, 360],
    ash: [161, 40],
    slag: [281, 40],
    moth: [581, 480],
    wheel: [376, 40],
    lode: [568, 180],
    vesk: [521, 40],
    comet: [876, 45],
    treadle: [1128, 230],
    rock: [28, 230],
    psu: [0, 20, true],
    psu2: [175, 20, true],
  }),
  boards: [
    {
      id: 'dome-board',
      name: 'Dome board',
      width: 1250,
      depth: 600,
      rails: railsAt(0, 140, 280, 420, 560),
      raised: [{ y: 0, depth: 160, by: 50 }],
      under: 60,
      grams: 9800,
    },
  ],
  cases: [
    { id: 'dome-case', name: 'Dome board case', grams: 9000, holds: ['dome-board', 'iso'] },
    { id: 'stage-trunk', name: 'Stage head trunk', grams: 11_000, holds: ['stage'] },
    { id: 'dome-cab', name: 'Stage cabinet, cover', grams: 1500, holds: ['cab'] },
    { id: 'bari-case', name: 'Baritone case', grams: 4200, holds: ['bari'] },
  ],
  tour: { countries: ['NO', 'GB'] },
  stage: {
    width: 7,
    depth: 5,
    spots: spots({
      'dome-board': [3.5, 3.6],
      stage: [2, 1.2],
      cab: [2, 0.7],
      bari: [3.5, 4.4],
      iso: [5, 3],
    }),
    marks: [{ id: 'player', words: 'Iseult', x: 3.5, y: 4.5 }],
  },
});

/** The practice rig as somebody left it: two pedals on one place, a plug without room, a switch behind another. */
export const brokenBuilt = (rig: Rig): Rig => ({
  ...rig,
  devices: carried(rig.devices, 'van-board', {
    pan: [500, 60],
    foot: [350, 50],
    tuner: [230, 190],
    moth: [60, 190],
    lag: [200, 40],
    gale: [80, 40],
    ember: [20, 150],
    lift: [5, 20],
  }),
  boards: [
    {
      id: 'van-board',
      name: 'Van board',
      width: 600,
      depth: 320,
      rails: railsAt(0, 93, 187, 280),
      under: 0,
      grams: 3100,
    },
  ],
  tour: { countries: ['NO', 'US'] },
});
