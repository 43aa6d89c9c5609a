import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { exportedJob } from '../../../../../tests/support/arbitrary-job';
import { display, gauge, heard, jobWith, lamp, live, minute, silent } from '../../../../../tests/support/car';
import { caseSchema } from '../../../../../tests/support/case';
import type { Finding } from '../../assessment';
import type { Job } from '../../../job';
import { jobSchema } from '../../../job/schema';
import { setAside } from '../../../tire/set-aside';
import { roadWheels, type Position } from '../../../names/wheel';
import { assess, verdictOn } from '..';
import { decibans } from './weight-of-evidence';

const folder = new URL('../../../../../tests/cases/', import.meta.url);
const examples = readdirSync(folder).map((file) =>
  caseSchema.parse(JSON.parse(readFileSync(new URL(file, folder), 'utf8'))),
);

/** Warm tires, one of them measured: what the car shows of all is brought to now by that, or by what the sensors told. */
const gauged = [180, 250, 240, 240];
const shown = [182, 252, 238, 205];
const warm = (more: Job['observations']): Job =>
  jobWith(
    [
      lamp(0, 'steady'),
      ...roadWheels.map((wheel, n) =>
        gauge(n + 1, wheel, gauged[n] ?? 0, { tire: 'warm', ...(wheel === 'RF' && { tireC: 30 }) }),
      ),
      ...roadWheels.map((wheel, n) => display(n + 6, wheel, shown[n] ?? 0)),
      ...more,
    ],
    { climate: { nowC: 2, lastFillC: 20, altitudeM: 0, fillPolicy: 'ambient' } },
  );
const stem = (n: number, wheel: Position, sign: 'stem-metal' | 'stem-rubber') =>
  ({ kind: 'visual', at: minute(n), wheel, sign }) as const;
/** What stem a wheel has, beside a sensor that answered and one that did not. */
const stems = jobWith([
  lamp(0, 'flash-then-steady'),
  ...roadWheels.map((wheel, n) => stem(n + 1, wheel, wheel === 'RR' ? 'stem-rubber' : 'stem-metal')),
  ...roadWheels.map((wheel, n) => gauge(n + 6, wheel, 228)),
  ...roadWheels.map((wheel, n) => (n % 2 === 0 ? silent(n + 11, wheel) : heard(n + 11, wheel))),
]);
const jobs = [
  ...examples.map(({ name, job }) => ({ name, job })),
  { name: 'stems', job: stems },
  {
    name: 'warm tires, parked',
    job: warm(roadWheels.map((wheel, n) => live(n + 10, wheel, shown[n] ?? 0, 0))),
  },
  {
    name: 'warm tires, driven',
    job: warm(roadWheels.map((wheel, n) => live(n + 10, wheel, shown[n] ?? 0, 70))),
  },
  {
    name: 'warm tires, woken',
    job: warm(roadWheels.map((wheel, n) => heard(n + 10, wheel, { kPa: shown[n] ?? 0, tempC: 28 }))),
  },
];

/** The odds of a finding in a job, judged from nothing; undefined where it is too unlikely to be told. */
function oddsIn(job: Job, { code, wheels }: Finding): number | undefined {
  const { told } = verdictOn(job);
  const at = wheels.length > 0 ? wheels : [undefined];
  const chances = at.flatMap(
    (wheel) =>
      told.find((claim) => claim.code === code && (wheel === undefined || claim.wheel === wheel))?.chance ??
      [],
  );
  return chances.length < at.length ? undefined : decibans(Math.min(...chances));
}

/** So many observations are judged. */
const judgedOf = (job: Job): number => setAside(job).job.observations.length;
const isJudged = (job: Job, index: number): boolean => setAside(job).places?.includes(index) ?? true;

/** The same in a day and a half: spread over a year, as it is drawn, most of it is old. */
const inOneVisit = (document: unknown): unknown =>
  JSON.parse(
    JSON.stringify(document).replaceAll(/20\d\d-\d\d-\d\dT[\d:.]+Z/g, (at) => {
      const from = Date.parse('2025-01-01T00:00:00Z');
      return new Date(from + (Date.parse(at) - from) / 250).toISOString();
    }),
  );

/** How many weights were compared with the odds of the job judged anew without the observation. */
function compareAll(job: Job): number {
  const { findings } = assess(job);
  let compared = 0;
  job.observations.forEach((_, index) => {
    const rest = { ...job, observations: job.observations.filter((_seen, other) => other !== index) };
    // Without the last look at the car others would not be old: it is weighed with what was judged.
    if (!isJudged(job, index) || judgedOf(rest) !== judgedOf(job) - 1) return;
    for (const finding of findings) {
      const without = oddsIn(rest, finding);
      if (without === undefined) continue;
      const weight = decibans(finding.probability) - without;
      const said = finding.evidence.find(({ observation }) => observation === index)?.decibans;
      // What weighs less than half a deciban is not named.
      if (said === undefined) expect(Math.abs(weight)).toBeLessThan(0.501);
      else expect(said).toBeCloseTo(weight, 2);
      compared += 1;
    }
  });
  return compared;
}

describe('what an observation weighs is by how much the odds of a finding are other without it', () => {
  for (const { name, job } of jobs)
    it(name, () => {
      expect(compareAll(job)).toBeGreaterThan(0);
    });

  it('any job at all: taught, read again, filled, warm, of any system', () => {
    let compared = 0;
    // More than thirty observations are not all weighed.
    for (const document of fc.sample(exportedJob, { numRuns: 40, seed: 5 })) {
      const job = jobSchema.parse(inOneVisit(document));
      if (job.observations.length <= 30) compared += compareAll(job);
    }
    expect(compared).toBeGreaterThan(300);
  });
});
