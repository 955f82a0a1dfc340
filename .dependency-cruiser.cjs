/** Layers import downwards only: app -> ui -> core, app -> server -> core, workers -> server|core, cli -> server|core. */
const core = ['units', 'field', 'cutter', 'kernels', 'outline', 'sources', 'motion', 'arrange', 'passes', 'program', 'proof', 'plan'];
/** Types of the job document are shared by all of core: they hold no code that runs. */
const shared = '^src/core/plan/(job|stage)\\.ts$|^src/core/cutter/';

module.exports = {
  forbidden: [
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } } },
    { name: 'core-is-alone', severity: 'error', from: { path: '^src/core/', pathNot: '\\.test\\.ts$' }, to: { path: '^src/(app|ui|server|workers|cli)/|^demo/|^node:|^(react|next|kysely|libsql)' } },
    { name: 'core-uses-no-node', severity: 'error', from: { path: '^src/core/', pathNot: '\\.test\\.ts$' }, to: { dependencyTypes: ['core'] } },
    { name: 'ui-knows-core-only', severity: 'error', from: { path: '^src/ui/' }, to: { path: '^src/(app|server|workers|cli)/' } },
    { name: 'server-knows-core-only', severity: 'error', from: { path: '^src/server/', pathNot: '\\.test\\.ts$' }, to: { path: '^src/(app|ui|cli)/' } },
    { name: 'server-takes-types-of-workers', severity: 'error', from: { path: '^src/server/', pathNot: '\\.test\\.ts$' }, to: { path: '^src/workers/', dependencyTypesNot: ['type-only'] } },
    { name: 'workers-below-app', severity: 'error', from: { path: '^src/(workers|cli)/' }, to: { path: '^src/(app|ui)/' } },
    ...core.map((layer, i) => ({
      name: `core-${layer}-is-early`,
      severity: 'error',
      from: { path: `^src/core/${layer}/`, pathNot: '\\.test\\.ts$' },
      to: { path: `^src/core/(${core.slice(i + 1).join('|') || 'nothing'})/`, pathNot: shared, dependencyTypesNot: ['type-only'] },
    })),
  ],
  options: {
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    doNotFollow: { path: 'node_modules' },
    exclude: { path: 'src/core/kernels/assembly' },
  },
};
