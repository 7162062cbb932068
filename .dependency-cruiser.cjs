/** The floors of the house: each imports only the floors below it. docs/architecture.md draws them. */
const floors = {
  core: [],
  store: ['core'],
  rig: ['core'],
  link: ['core', 'rig'],
  plan: ['core'],
  demo: ['core', 'rig', 'store', 'plan'],
  web: ['core', 'store', 'rig', 'plan'],
  scripts: ['core', 'rig', 'store', 'demo', 'plan'],
  e2e: ['scripts'],
};
const folder = {
  core: 'packages/core',
  store: 'packages/store',
  rig: 'packages/rig',
  link: 'packages/link',
  plan: 'packages/plan',
  demo: 'demo',
  web: 'apps/web',
  scripts: 'scripts',
  e2e: 'e2e',
};
const all = Object.keys(folder);

module.exports = {
  forbidden: [
    ...all.map((floor) => ({
      name: `floor-${floor}`,
      comment: `${folder[floor]} may import only: ${floors[floor].join(', ') || 'nothing of ours'}`,
      severity: 'error',
      from: { path: `^${folder[floor]}/` },
      to: {
        path: all
          .filter((other) => other !== floor && !floors[floor].includes(other))
          .map((other) => `^${folder[other]}/`),
      },
    })),
    {
      name: 'through-the-door',
      comment: 'A package is entered through the doors its package.json names, not by a path into it.',
      severity: 'error',
      from: { path: '^(?:apps|demo|scripts|e2e)/|^packages/([^/]+)/' },
      to: {
        path: '^packages/([^/]+)/',
        pathNot: [
          '^packages/$1/',
          '^packages/[^/]+/src/index\\.ts$',
          '^packages/[^/]+/src/[^/]+/index\\.ts$',
          '^packages/core/src/errors\\.ts$',
          '^packages/store/src/(shapes|db/migrate|runs/evaluation|runs/beside)\\.ts$',
          '^packages/store/test/throwaway\\.ts$',
        ],
        dependencyTypes: ['local'],
      },
    },
    {
      name: 'routes-on-top',
      comment:
        'In the web application: app/ holds routes, places/ what they show, ui/ what places share, server/ and compute/ what stands behind.',
      severity: 'error',
      from: { path: '^apps/web/(ui|server|compute)/' },
      to: { path: '^apps/web/(app|places)/' },
    },
    {
      name: 'core-is-pure',
      comment: 'core runs in browser, worker and server: no Node.js, no interface, no database.',
      severity: 'error',
      from: { path: '^packages/core/src/', pathNot: '\\.test\\.ts$' },
      to: {
        dependencyTypes: ['core', 'npm', 'npm-dev'],
        pathNot: 'node_modules/(fraction\\.js|mathjs|pure-rand|@stdlib)/',
      },
    },
    {
      name: 'no-circles',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    { name: 'resolvable', severity: 'error', from: {}, to: { couldNotResolve: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)((node_modules|\\.next)/|next-env\\.d\\.ts$)' },
    tsPreCompilationDeps: true,

    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.mjs', '.js', '.json'],
    },
  },
};
