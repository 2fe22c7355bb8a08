const only = (from, allowed) => ({
  name: `${from} imports only ${allowed.join(', ') || 'itself'}`,
  severity: 'error',
  from: { path: `^src/${from}/` },
  to: { path: '^src/', pathNot: [from, ...allowed].map((a) => `^src/${a}/`) },
});

/** Who may import whom: core nothing above it; worker, server and print core; cli core and print; ui core and worker; app ui, server, print and core. */
module.exports = {
  forbidden: [
    only('core', []),
    only('worker', ['core']),
    only('server', ['core']),
    only('print', ['core']),
    only('cli', ['core', 'print']),
    only('ui', ['core', 'worker']),
    only('app', ['ui', 'server', 'core', 'print']),
    {
      name: 'core is pure',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^(node:|react|next|pg|kysely|@mantine)|node_modules/(react|next|pg|kysely|@mantine)/',
        dependencyTypesNot: ['type-only'],
      },
    },
    {
      name: 'core uses no node modules',
      severity: 'error',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'no cycles of values',
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
