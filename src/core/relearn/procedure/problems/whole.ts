import { z } from 'zod';
import { latestDay } from '../../../measure/calendar';
import type { RelearnMethod } from '../../method';
import type { Issue } from '../../../result';
import { phases, type Procedure, type Step } from '..';

/** What makes no sense in a procedure as a whole. */
export const overallProblems = (procedure: Procedure, now: Date): Issue[] => [
  ...yearProblems(procedure),
  ...checkedProblems(procedure, now),
  ...wheelProblems(procedure),
  ...limitProblems(procedure),
  ...(procedure.proof.length === 0
    ? [{ path: 'proof', message: 'nothing proves that it worked: name one at least' }]
    : []),
];

const yearProblems = ({ for: { fromYear, toYear } }: Procedure): Issue[] =>
  fromYear !== undefined && toYear !== undefined && fromYear > toYear
    ? [{ path: 'for.fromYear', message: `the first year, ${fromYear}, is after the last, ${toYear}` }]
    : [];

function checkedProblems({ checkedAt }: Procedure, now: Date): Issue[] {
  if (checkedAt === undefined) return [];
  if (!z.iso.date().safeParse(checkedAt).success)
    return [{ path: 'checkedAt', message: `"${checkedAt}" is no day: write it like 2026-03-31` }];
  return checkedAt > latestDay(now)
    ? [{ path: 'checkedAt', message: `${checkedAt} lies ahead: nobody has checked it then` }]
    : [];
}

function wheelProblems({ wheels, optional, each }: Procedure): Issue[] {
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
    ...(wheels.length > 0 && wheels.every((wheel) => optional.includes(wheel))
      ? [{ path: 'optional', message: 'every wheel may be left out: then nothing is taught' }]
      : []),
    ...(wheels.length > 0 && each.length === 0
      ? [{ path: 'wheels', message: 'nothing is done at these wheels: each has no step' }]
      : []),
    ...(wheels.length === 0 && each.length > 0
      ? [{ path: 'each', message: 'there is no wheel to do this at: wheels is empty' }]
      : []),
  ];
}

export const noTime = '0 s leave no time for anything';

const limitProblems = ({ limits }: Procedure): Issue[] =>
  (['enterS', 'wheelS', 'totalS'] as const).flatMap((name) =>
    limits[name] === 0 ? [{ path: `limits.${name}`, message: noTime }] : [],
  );

/** The step that a method is named for. */
const ownStep: Partial<Record<RelearnMethod, Step['do']>> = {
  air: 'air',
  magnet: 'magnet',
  write: 'write',
  drive: 'drive',
};

/** A method without the step that makes it that method. */
export function methodProblems(procedure: Procedure): Issue[] {
  const step = ownStep[procedure.method];
  return step === undefined || phases.some((phase) => procedure[phase].some(({ do: kind }) => kind === step))
    ? []
    : [
        {
          path: 'method',
          message: `the method is ${procedure.method}, but no step is: add one of that kind`,
        },
      ];
}
