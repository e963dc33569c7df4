/** Arrows run only downward: web and server over edit over core over document; and within core from cutting to meshes to profiles. */
const rooms = (from, to, why) => ({ name: `${from} may not see ${to}`, comment: why, severity: 'error', from: { path: `^${from}/src` }, to: { path: `^${to}/src` } });

module.exports = {
  forbidden: [
    { name: 'no cycles', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    ...['core', 'edit', 'server', 'web', 'cli', 'bench', 'demo'].map((to) => rooms('document', to, 'The document imports none.')),
    ...['edit', 'server', 'web', 'cli', 'bench', 'demo'].map((to) => rooms('core', to, 'The core has no interface and no database.')),
    ...['server', 'web', 'cli', 'bench', 'demo'].map((to) => rooms('edit', to, 'Edits are computed, whoever asks for them.')),
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
    { name: 'the sheet path does without the solid library', severity: 'error', from: { path: '^core/src', pathNot: '^core/src/cut/solid(-tagged)?.ts' }, to: { path: 'manifold-3d|^core/src/cut/solid(-tagged)?.ts' } },
    { name: 'meshes do not know how they are cut', severity: 'error', from: { path: '^core/src/mesh' }, to: { path: '^core/src/(cut|reveal|model|check|format)' } },
    { name: 'reveals do not know what they are cut into', severity: 'error', from: { path: '^core/src/reveal' }, to: { path: '^core/src/(cut|setout|model|check|format)' } },
    { name: 'profiles know nothing else of the core', severity: 'error', from: { path: '^core/src/profile' }, to: { path: '^core/src/(cut|model|mesh|setout|check|format|element)' } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(/test/|/dist/)' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'types', 'default'] },
  },
};
