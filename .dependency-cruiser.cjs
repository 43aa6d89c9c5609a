/** Imports run one way: pages, ui, workers, cli → services → data, devices → contract → core; standins → core. */
const only = (name, from, allowed, comment) => ({
  name,
  severity: 'error',
  comment,
  from: { path: `^src/${from}/`, pathNot: '\\.test\\.ts$' },
  to: { path: '^src/', pathNot: `^src/(${[from, ...allowed].join('|')})/` },
});

module.exports = {
  forbidden: [
    only('core-stands-alone', 'core', [], 'The core imports nothing of ours from outside itself.'),
    only(
      'standins-know-the-core',
      'standins',
      ['core'],
      'A stand-in must not know the app it stands before.',
    ),
    only('devices-know-the-core', 'devices', ['core'], 'A device adapter speaks a protocol, nothing else.'),
    only(
      'settings-stand-alone',
      'settings',
      [],
      'What an operator sets is read by all, and knows none of them.',
    ),
    only('data-knows-the-core', 'data', ['core', 'settings'], 'Repositories store what the core describes.'),
    only(
      'services-orchestrate',
      'services',
      ['core', 'contract', 'data', 'devices', 'settings'],
      'Use cases stand above data and devices.',
    ),
    only(
      'contract-knows-the-core',
      'contract',
      ['core'],
      'What goes over HTTP is made of what the core describes.',
    ),
    only(
      'ui-is-pure',
      'ui',
      ['core', 'contract'],
      'The interface uses types and pure functions of the core.',
    ),
    only(
      'workers-are-thin',
      'workers',
      ['core', 'contract', 'services'],
      'A worker wraps what others work out.',
    ),
    only(
      'pages-call-services',
      'pages',
      ['core', 'contract', 'services', 'settings', 'ui'],
      'A page parses, calls one service, answers.',
    ),
    {
      name: 'core-is-plain',
      severity: 'error',
      comment: 'No interface, database or server code in the core.',
      from: { path: '^src/core/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '(node_modules/(react|astro|sequelize|pg|umzug)/|^(node:)?(fs|net|http|crypto|child_process)$)',
      },
    },
    {
      name: 'sql-stays-in-data',
      severity: 'error',
      comment: 'Only src/data knows SQL or Sequelize.',
      from: { path: '^src/', pathNot: '^src/data/' },
      to: { path: 'node_modules/(sequelize|pg|umzug)/' },
    },
    {
      name: 'no-cycles',
      severity: 'error',
      from: { path: '^src/' },
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      extensions: ['.ts', '.tsx', '.js', '.json'],
      exportsFields: ['exports'],
      conditionNames: ['import', 'node', 'default', 'types'],
    },
  },
};
