import type { Issue } from '../../result';
import { issuesOf } from '../../result/issues';
import { canonicalCue, legendOf } from './legend';
import { phases, type Procedure, type Step } from '.';
import { procedureSchema } from './schema';

/** A procedure that is well formed and makes sense. */
export const sensibleProcedureSchema = procedureSchema.superRefine((procedure, context) => {
  for (const { path, message } of problemsOf(procedure))
    context.addIssue({ code: 'custom', path: path.split('.'), message });
});

/** A procedure, or everything that keeps a document from being one, each with its dotted path. */
export type Reading = { ok: true; procedure: Procedure } | { ok: false; issues: Issue[] };

export function readProcedure(document: unknown): Reading {
  const parsed = sensibleProcedureSchema.safeParse(document);
  return parsed.success
    ? { ok: true, procedure: parsed.data }
    : { ok: false, issues: issuesOf(parsed.error) };
}

/** What makes no sense in a procedure that is well formed: one issue per problem. */
export function problemsOf(procedure: Procedure): Issue[] {
  return [
    ...yearProblems(procedure),
    ...wheelProblems(procedure),
    ...phases.flatMap((phase) =>
      procedure[phase].flatMap((step, at) =>
        stepProblems(procedure, phase, step).map(({ path, message }) => ({
          path: [phase, at, path].join('.'),
          message,
        })),
      ),
    ),
    ...proofProblems(procedure),
    ...cueProblems(procedure),
  ];
}

const yearProblems = ({ for: { fromYear, toYear } }: Procedure): Issue[] =>
  fromYear !== undefined && toYear !== undefined && fromYear > toYear
    ? [{ path: 'for.fromYear', message: `the first year, ${fromYear}, is after the last, ${toYear}` }]
    : [];

function wheelProblems({ wheels, optional }: Procedure): Issue[] {
  const twice = (list: readonly string[], name: string) =>
    list.flatMap((wheel, at) =>
      list.indexOf(wheel) < at ? [{ path: `${name}.${at}`, message: `${wheel} stands twice` }] : [],
    );
  return [
    ...twice(wheels, 'wheels'),
    ...twice(optional, 'optional'),
    ...optional.flatMap((wheel, at) =>
      wheels.includes(wheel)
        ? []
        : [{ path: `optional.${at}`, message: `${wheel} is not among the wheels that are taught` }],
    ),
  ];
}

function stepProblems(procedure: Procedure, phase: (typeof phases)[number], step: Step): Issue[] {
  switch (step.do) {
    case 'hold':
      return step.mostS !== undefined && step.leastS > step.mostS
        ? [{ path: 'leastS', message: `the least, ${step.leastS} s, is above the most, ${step.mostS} s` }]
        : [];
    case 'cue':
      return legendOf(procedure, phase).some(({ means }) => means === step.means)
        ? []
        : [{ path: 'means', message: `no cue in the legend means ${step.means} during ${phase}` }];
    case 'wake':
    case 'air':
    case 'magnet':
      return phase === 'each'
        ? []
        : [{ path: 'do', message: `${step.do} is done at a wheel: it belongs into each` }];
    default:
      return [];
  }
}

const proofProblems = ({ proof }: Procedure): Issue[] =>
  proof.length === 0 ? [{ path: 'proof', message: 'nothing proves that it worked: name one at least' }] : [];

function cueProblems({ cues }: Procedure): Issue[] {
  return cues.flatMap((entry, at) => {
    const other = cues.find(
      (before, place) =>
        place < at &&
        canonicalCue(before.cue) === canonicalCue(entry.cue) &&
        before.means !== entry.means &&
        (before.during === undefined || entry.during === undefined || before.during === entry.during),
    );
    const where = entry.during ?? other?.during;
    return other
      ? [
          {
            path: `cues.${at}`,
            message: `"${entry.cue}" means ${other.means} and ${entry.means}${where ? ` during ${where}` : ''}`,
          },
        ]
      : [];
  });
}
