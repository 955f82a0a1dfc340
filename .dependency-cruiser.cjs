/** Layers import downwards only: app -> ui|server -> contract -> core, workers -> server|contract|core, cli -> server|core. */
const core = [
  'units',
  'field',
  'outline',
  'cutter',
  'kernels',
  'findings',
  'doc',
  'setup',
  'sources',
  'arrange',
  'motion',
  'passes',
  'program',
  'proof',
  'plan',
];
/** What a kind of pass or of source holds belongs to the document: it imports only what doc's own parts may, and doc builds its unions from it. */
const schemas = '^src/core/(passes|arrange/kinds)/[^/]+/schema\\.ts$';
const test = '\\.test\\.tsx?$|test-kit\\.ts$';

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: { pathNot: test }, to: { circular: true } },
    { name: 'core-is-alone', severity: 'error', from: { path: '^src/core/', pathNot: test }, to: { path: '^src/(app|ui|server|workers|cli|contract)/|^demo/|^node:|^(react|next|kysely|libsql)' } },
    { name: 'core-uses-no-node', severity: 'error', from: { path: '^src/core/', pathNot: '\\.test\\.ts$' }, to: { dependencyTypes: ['core'] } },
    { name: 'planning-reads-no-texts', severity: 'error', from: { path: '^src/core/', pathNot: `${test}|^src/core/findings/texts/` }, to: { path: '^src/core/findings/texts/' } },
    { name: 'tests-have-their-kit', severity: 'error', from: { path: '^src/', pathNot: test }, to: { path: 'test-kit' } },
    { name: 'contract-knows-core-only', severity: 'error', from: { path: '^src/contract/', pathNot: '\\.test\\.ts$' }, to: { path: '^src/(app|ui|server|workers|cli)/|^demo/' } },
    { name: 'ui-knows-core-and-contract', severity: 'error', from: { path: '^src/ui/' }, to: { path: '^src/(app|server|workers|cli)/' } },
    { name: 'server-knows-core-and-contract', severity: 'error', from: { path: '^src/server/', pathNot: '\\.test\\.ts$' }, to: { path: '^src/(app|ui|cli)/' } },
    { name: 'server-takes-types-of-workers', severity: 'error', from: { path: '^src/server/', pathNot: '\\.test\\.ts$' }, to: { path: '^src/workers/', dependencyTypesNot: ['type-only'] } },
    { name: 'workers-below-app', severity: 'error', from: { path: '^src/(workers|cli)/' }, to: { path: '^src/(app|ui)/' } },
    {
      name: 'schemas-are-ground-floor',
      severity: 'error',
      from: { path: schemas },
      to: { path: '^src/core/', pathNot: '^src/core/(units|outline|cutter)/|^src/core/doc/(parts|pass-parts|outline-ref|relief-of|tone|words)\\.ts$' },
    },
    ...core.map((layer, i) => ({
      name: `core-${layer}-is-early`,
      severity: 'error',
      from: { path: `^src/core/${layer}/`, pathNot: `${test}|${schemas}` },
      to: { path: `^src/core/(${core.slice(i + 1).join('|') || 'nothing'})/`, pathNot: layer === 'doc' ? schemas : undefined },
    })),
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: 'src/core/kernels/assembly' },
  },
};
