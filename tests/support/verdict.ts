import type { Assessment } from '../../src/core/judgement/assessment';
import type { FindingCode } from '../../src/core/catalogue/finding';
import type { Position } from '../../src/core/names/wheel';

/** The chance an assessment gives a finding, at a wheel where one is named; 0 where it does not tell of it. */
export const chance = (
  { findings }: Pick<Assessment, 'findings'>,
  code: FindingCode,
  wheel?: Position,
): number =>
  Math.max(
    0,
    ...findings
      .filter((found) => found.code === code && (!wheel || found.wheels.includes(wheel)))
      .map(({ probability }) => probability),
  );
