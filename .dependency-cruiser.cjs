const only = (from, allowed) => ({
  name: `${from} imports only ${allowed.join(', ') || 'itself'}`,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: '^src/', pathNot: [from, ...allowed].map((a) => `^src/${a}/`) },
});

/**
 * The storeys of the core, from the ground up; docs/decisions.md says why where they differ from
 * what one would guess. A folder may import from those below it, types included, and from none
 * above or beside it.
 */
const STOREYS = [
  ['outcome'],
  ['units', 'graph', 'optimum'],
  ['kinds'],
  ['rig'],
  ['findings', 'demo'],
  ['testing'],
  ['circuit'],
  ['walk'],
  ['changes', 'signal', 'keep'],
  ['note'],
  ['control'],
  ['midi'],
  ['songs'],
  ['analysis', 'build', 'order'],
  ['promises'],
  ['report'],
  ['solve', 'show', 'start'],
  ['draw'],
  ['formats'],
];

/** Tests, and what tests by hand share: they look at the whole from wherever they stand. */
const TESTS = '\\.test\\.ts$|/hookups/';

/** What a folder may not import: everything at or above its own storey but itself. */
const storeys = STOREYS.flatMap((floor, height) =>
  floor
    .filter(() => STOREYS.slice(height).flat().length > 1)
    .map((folder) => ({
      name: `core/${folder} imports only from storeys below it`,
      severity: 'error',
      from: { path: `^src/core/${folder}/`, pathNot: TESTS },
      to: {
        path: STOREYS.slice(height)
          .flat()
          .filter((other) => other !== folder)
          .map((other) => `^src/core/${other}/`),
      },
    })),
);

/**
 * Who may import whom: core nothing above it; worker, server and print core; cli core and print; ui
 * core and worker; app ui, server, print and core.
 */
module.exports = {
  forbidden: [
    only('core', []),
    only('worker', ['core']),
    only('server', ['core', 'print']),
    only('print', ['core']),
    only('cli', ['core', 'print']),
    only('ui', ['core', 'worker']),
    only('app', ['ui', 'server', 'core', 'print']),
    ...storeys,
    {
      name: 'every folder of the core has its storey',
      severity: 'error',
      from: { path: '^src/core/', pathNot: STOREYS.flat().map((f) => `^src/core/${f}/`) },
      to: {},
    },
    {
      name: 'core is pure',
      severity: 'error',
      from: { path: '^src/core/', pathNot: TESTS },
      to: {
        path: '^(node:|react|next|pg|kysely|@mantine)|node_modules/(react|next|pg|kysely|@mantine)/',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'core uses no node modules',
      severity: 'error',
      from: { path: '^src/core/', pathNot: TESTS },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'no circles of values',
      severity: 'error',
      from: { path: '^src/' },
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '\\.css$' },
  },
};
