/** Arrows point one way: app → formats → core, server → formats → core. */
const only = (from, allowed) => ({
  name: `${from}-arrows`,
  severity: 'error',
  comment: `${from} may import from ${allowed.join(', ')} of this project and nothing else`,
  from: { path: `^${from}/`, pathNot: '\\.test\\.ts$' },
  to: { path: '^(core|formats|app|server|demo|e2e)/', pathNot: `^(${allowed.join('|')})/` },
});

module.exports = {
  forbidden: [
    only('core', ['core']),
    only('formats', ['formats', 'core']),
    only('app', ['app', 'formats', 'core']),
    only('server', ['server', 'formats', 'core']),
    only('demo', ['demo', 'server', 'formats', 'core']),
    {
      name: 'core-libraries',
      severity: 'error',
      comment: 'core knows Valibot, a stemmer and no other library',
      from: { path: '^core/', pathNot: '\\.test\\.ts$' },
      to: { path: 'node_modules', pathNot: 'node_modules/(valibot|stemmer)/' },
    },
    {
      name: 'places-do-not-meet',
      severity: 'error',
      comment: 'a place never imports another place; they meet in workspace, shared, frame parts and words',
      from: { path: '^app/places/([^/]+)/' },
      to: { path: '^app/places/', pathNot: '^app/places/$1/' },
    },
    {
      name: 'parts-do-not-know-places',
      severity: 'error',
      from: { path: '^app/(shared|workspace|workers|words)/' },
      to: { path: '^app/places/' },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      // A circle that is closed by types alone is none when the code runs.
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-folders-have-an-order',
      severity: 'error',
      comment: 'the folders of core build on one another in one direction, types included',
      scope: 'folder',
      from: { path: '^core/' },
      to: { circular: true },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.tests.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { extensions: ['.ts', '.tsx', '.json'], conditionNames: ['import', 'default'] },
  },
};
