import { tests, type Test } from '../tests';
import { numbersOf } from '../../measure/figure';
import type { WorkKind } from '../../names/kinds';
import { listWheels, type Position } from '../../names/wheel';
import { carFindings } from './car';
import { idFindings } from './id';
import type { FindingRecord, PartKind } from './record';
import { sensorFindings } from './sensor';
import { tireFindings } from './tire';

/**
 * The catalogue of findings: everything this app may say of a car, one record a code. Lists and lookups are
 * derived from it, here or where they are used.
 */
export { partKinds, type Answer, type FindingRecord, type PartKind } from './record';

const catalogue = { ...tireFindings, ...sensorFindings, ...idFindings, ...carFindings } as const;

export type FindingCode = keyof typeof catalogue;

/** All of them, the tires' first and "all in order" last: the order in which equals are told. */
export const findingCodes = Object.keys(catalogue) as FindingCode[];

/** All that is known of a finding. */
export const recordOf = (code: FindingCode): FindingRecord => catalogue[code];

/** The codes whose record has such a side. */
type With<Side extends keyof FindingRecord> = {
  [Code in FindingCode]: (typeof catalogue)[Code] extends Record<Side, unknown> ? Code : never;
}[FindingCode];

const having = <Side extends keyof FindingRecord>(side: Side) =>
  findingCodes.filter((code): code is With<Side> => recordOf(code)[side] !== undefined);

/** Findings that are true or not of one wheel, by the states of its tire and its sensor. */
export const wheelFindings = having('summedWith');
export type WheelFinding = With<'summedWith'>;

/** Faults that are there before anything is seen, each with how common it is. */
export const faults = having('prior');
export type Fault = With<'prior'>;

/** How common a fault is on a plain car, and the factor by which work done lately makes it likelier. */
export const commonness = (code: Fault): Commonness => common[code];

interface Commonness {
  prior: number;
  after: (work: WorkKind) => number;
}

const common = Object.fromEntries(
  faults.map((code): [Fault, Commonness] => {
    const { after } = recordOf(code);
    return [code, { prior: catalogue[code].prior.value, after: (work) => after?.[work]?.value ?? 1 }];
  }),
) as Record<Fault, Commonness>;

/** What a finding costs if it is acted on wrongly, and if it is left, minutes; undefined where it calls for nothing. */
export const stakesOf = (code: FindingCode): { wrong: number; missed: number } | undefined => stakes[code];

const stakes = Object.fromEntries(
  having('stakes').map((code) => [code, numbersOf(catalogue[code].stakes)]),
) as Partial<Record<FindingCode, { wrong: number; missed: number }>>;

/** A question a test answers: how often it says yes where the finding is true, and where it is not. */
export interface Question {
  code: FindingCode;
  scope: FindingRecord['scope'];
  ifTrue: number;
  ifFalse: number;
}

/** What a test asks, in the order of the catalogue. */
export const questionsOf = (test: Test): readonly Question[] => questions[test];

const questions = Object.fromEntries(
  tests.map((test) => [
    test,
    findingCodes.flatMap((code): Question[] => {
      const { scope, asked } = recordOf(code);
      const answer = asked?.[test];
      return answer ? [{ code, scope, ifTrue: answer.ifTrue.value, ifFalse: answer.ifFalse.value }] : [];
    }),
  ]),
) as Record<Test, Question[]>;

/** The faults each part can have. Pressures are no faults: they are measured. */
export const faultsOf = (part: PartKind): FindingCode[] =>
  findingCodes.filter((code) => recordOf(code).part === part);

export const blamesNothing = (code: FindingCode): boolean => recordOf(code).blamesNothing ?? false;

/** A finding by what it says and of which wheels. */
interface Named {
  code: FindingCode;
  wheels: readonly Position[];
}

/** What is done about a finding, as a button says it: "Replace the RR sensor"; its title where that is no move. */
export const workOn = (finding: Named): string =>
  recordOf(finding.code).work?.label(listWheels(finding.wheels)) ?? titleOf(finding);

/** A finding as it is pointed at: by what it says, not by its place in a list that moves. */
export const findingKey = ({ code, wheels }: Named): string => `${code} ${wheels.join()}`;

/** A finding's title with its wheels: "Tire low: RF and LR". */
export const titleOf = ({ code, wheels }: Named): string =>
  [recordOf(code).title, listWheels(wheels)].filter(Boolean).join(': ');
