/** The arrow of imports runs one way: core knows nobody; gateway, standins and app know core; nobody knows app. */
const forbid = (name, comment, from, to) => ({ name, severity: 'error', comment, from: { path: from }, to });
module.exports = {
  forbidden: [
    forbid('core-knows-nobody', 'core imports only core and small numeric or format packages.', '^core/src', {
      path: '^(app|gateway|standins|e2e|bench)/',
    }),
    {
      name: 'core-stays-pure',
      severity: 'error',
      comment: 'No Node, React or storage inside core; tests may use what they need.',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: { path: 'node_modules/(react|idb|express|comlink|chart\\.js|@tanstack)' },
    },
    {
      name: 'core-no-node',
      severity: 'error',
      comment: 'core runs in a page, a worker or a terminal alike.',
      from: { path: '^core/src', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    forbid('standins-know-core', 'A stand-in knows core and nothing of the screens.', '^standins/src', {
      path: '^(app|gateway)/',
    }),
    forbid('gateway-knows-core', 'The gateway serves the built app; it never imports it.', '^gateway/src', {
      path: '^(app)/',
    }),
    {
      name: 'only-data-knows-storage',
      severity: 'error',
      comment: 'Browser storage is reached through app/src/data alone.',
      from: { path: '^app/src', pathNot: '^app/src/data/' },
      to: { path: 'node_modules/idb/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.base.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default'] },
  },
};
