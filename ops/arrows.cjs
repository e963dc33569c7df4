/** Arrows run only downward: web and server over edit over core over document; and within web and core by their own rows. */
const rooms = (from, to, why) => ({
  name: `${from} may not see ${to}`,
  comment: why,
  severity: 'error',
  from: { path: `^${from}/src` },
  to: { path: `^${to}/src` },
});

/** Rooms within a room, from the top down, those of one row side by side: each may see what is below it, and neither what is above it nor what is beside it. */
const coreRooms = [
  ['check'],
  ['format', 'drawing'],
  ['model'],
  ['cut', 'infill'],
  ['setout'],
  ['reveal'],
  ['element'],
  ['mesh', 'roof', 'shell'],
  ['profile', 'texture'],
];
const webRooms = [
  ['shell', 'projects'],
  ['book'],
  ['sheet', 'plan', 'table', 'model', 'register', 'patterns', 'particulars'],
  ['arrange', 'commands'],
  ['fields', 'boards'],
  ['state'],
  ['common'],
];

const downward = (room, rows) =>
  rows.flatMap((row, i) =>
    row.map((own) => ({
      name: `${room}/${own} sees only what is below it`,
      severity: 'error',
      from: { path: `^${room}/src/${own}/` },
      to: {
        path: `^${room}/src/(${[...rows.slice(0, i).flat(), ...row.filter((other) => other !== own), 'none'].join('|')})/`,
      },
    })),
  );

module.exports = {
  forbidden: [
    {
      name: 'no cycles',
      severity: 'error',
      from: {},
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    ...['core', 'edit', 'server', 'web', 'cli', 'bench', 'demo'].map((to) =>
      rooms('document', to, 'The document imports none.'),
    ),
    ...['edit', 'server', 'web', 'cli', 'bench', 'demo'].map((to) =>
      rooms('core', to, 'The core has no interface and no database.'),
    ),
    ...['server', 'web', 'cli', 'bench', 'demo'].map((to) =>
      rooms('edit', to, 'Edits are computed, whoever asks for them.'),
    ),
    ...['web', 'cli', 'bench'].map((to) => rooms('server', to, 'The server does not know who calls it.')),
    ...['web', 'server', 'bench'].map((to) => rooms('cli', to, 'The shell needs no database.')),
    {
      name: 'web takes only types from server',
      severity: 'error',
      from: { path: '^web/src' },
      to: { path: '^server/src', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'core has no interface and no database in it',
      severity: 'error',
      from: { path: '^(core|document|edit)/src' },
      to: { path: '(react|hono|mikro-orm|three|chakra|node:fs|node:http)' },
    },
    {
      name: 'the sheet path does without the solid library',
      severity: 'error',
      from: { path: '^core/src', pathNot: '^core/src/cut/solid(-tagged)?.ts' },
      to: { path: 'manifold-3d|^core/src/cut/solid(-tagged)?.ts' },
    },
    ...downward('core', coreRooms),
    ...downward('web', webRooms),
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(/test/|/dist/)' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'] },
  },
};
