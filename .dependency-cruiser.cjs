/** Imports run one way: pages, ui, workers, cli → services → data, devices → contract → core; standins, simulation → core. */
const only = (name, from, allowed, comment) => ({
  name,
  severity: 'error',
  comment,
  from: { path: `^src/${from}/`, pathNot: '\\.test\\.ts$' },
  to: { path: '^src/', pathNot: `^src/(${[from, ...allowed].join('|')})/` },
});

/** The rooms of the core, each a subject, from what knows nothing of the others up. */
const rooms = [
  ['result'],
  ['measure', 'names'],
  ['relearn', 'catalogue'],
  ['job'],
  ['tire'],
  ['car', 'sensor'],
  ['judgement'],
  ['visit'],
  ['records'],
];
const notUpward = rooms.flatMap((level, at) =>
  level.map((room) => {
    const others = rooms
      .slice(at)
      .flat()
      .filter((other) => other !== room);
    return {
      name: `core-${room}-looks-down`,
      severity: 'error',
      comment: 'A room of the core knows those under it, types too; two on one level do not know each other.',
      from: { path: `^src/core/${room}/`, pathNot: '\\.test\\.ts$' },
      to: { path: `^src/core/(${others.join('|') || 'none'})/` },
    };
  }),
);

module.exports = {
  forbidden: [
    ...notUpward,
    {
      name: 'core-has-no-other-rooms',
      severity: 'error',
      comment: 'What is new in the core belongs to one of its subjects.',
      from: { path: `^src/core/(?!(${rooms.flat().join('|')})/)`, pathNot: '\\.test\\.ts$' },
      to: {},
    },
    only('core-stands-alone', 'core', [], 'The core imports nothing of ours from outside itself.'),
    only(
      'standins-know-the-core',
      'standins',
      ['core'],
      'A stand-in must not know the app it stands before.',
    ),
    only('simulation-knows-the-core', 'simulation', ['core'], 'A made-up world is judged by the core alone.'),
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
      ['core', 'contract', 'data', 'devices', 'settings', 'simulation'],
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
      name: 'office-has-one-door',
      severity: 'error',
      comment:
        'What comes in and goes out beside the visits is asked for at its door, and no visit needs it.',
      from: { path: '^src/(?!services/office/)', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/services/office/(?!index\\.ts)' },
    },
    {
      name: 'visits-need-no-office',
      severity: 'error',
      from: { path: '^src/services/(?!office/)', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/services/office/' },
    },
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
