import { writeFileSync } from 'node:fs';
import { population, worldNames, type Report, type WayOfWorking } from '../src/simulation';

/**
 * A simulated population: how often the first finding is right, how well its certainty holds, what it costs
 * in minutes and in needless parts, against the whole round done in full and a part sold for the lamp, on the
 * same cars. In the world that is reported of it writes the reliability chart to docs/reliability.svg; the other is for
 * choosing by.
 *
 * Run: npx tsx bench/population.ts [cars] [seed] [reporting, fitting, plain, or either of the first with -befallen]
 */
const cars = Number(process.argv[2] ?? 20_000);
const seed = Number(process.argv[3] ?? 7);
const world = worldNames.find((name) => name === process.argv[4]) ?? 'reporting';
const every = Math.max(1, Math.floor(cars / 20));

const run = population(cars, seed, world);
let step = run.next();
while (!step.done) {
  if (step.value.done % every === 0) process.stderr.write(`${step.value.done} of ${cars} cars\n`);
  step = run.next();
}
const report = step.value;
const ways: { name: WayOfWorking; label: string }[] = [
  { name: 'engine', label: 'test by test' },
  { name: 'checklist', label: 'whole round' },
  { name: 'replace', label: 'part for the lamp' },
];
for (const { name, label } of ways) {
  const { right, minutesPerCar, needlessPartsPer1000 } = report[name];
  process.stdout.write(
    `${label.padEnd(18)} right ${(100 * right).toFixed(2)} %, ${minutesPerCar.toFixed(2)} minutes a car, ` +
      `${needlessPartsPer1000.toFixed(1)} needless parts per 1000 cars\n`,
  );
}
process.stdout.write(
  `minutes against the whole round: ${(report.engine.minutesPerCar / report.checklist.minutesPerCar).toFixed(3)}; ` +
    `expected calibration error ${report.calibrationError.toFixed(4)}\n`,
);
const { there, byRound, missed, left } = report.leaks;
process.stdout.write(
  `leaks: ${there} there, ${byRound} told by a full round; of these ${missed} not told when it would act, ${left} of them left with the car, nothing said of the tire\n`,
);
for (const { from, to, claims, meanChance, shareTrue } of report.reliability) {
  process.stdout.write(
    `${from.toFixed(1)} to ${to.toFixed(1)}: ${String(claims).padStart(6)} claims, said ${meanChance.toFixed(3)}, true ${shareTrue.toFixed(3)}\n`,
  );
}
if (world === 'reporting')
  writeFileSync(new URL('../docs/reliability.svg', import.meta.url), chartOf(report));

/** Said against true, a dot for each tenth, as large as it has claims. */
function chartOf({ reliability, cars: count, calibrationError }: Report): string {
  const [size, left, top] = [300, 56, 40];
  const x = (share: number) => (left + share * size).toFixed(1);
  const y = (share: number) => (top + size - share * size).toFixed(1);
  const most = Math.max(...reliability.map(({ claims }) => claims));
  const lines = [0, 0.25, 0.5, 0.75, 1].map(
    (share) =>
      `<path d="M${x(0)} ${y(share)}H${x(1)}M${x(share)} ${y(0)}V${y(1)}" stroke="#d8cfb8"/>` +
      `<text x="${left - 8}" y="${Number(y(share)) + 4}" text-anchor="end">${100 * share} %</text>` +
      `<text x="${x(share)}" y="${top + size + 18}" text-anchor="middle">${100 * share} %</text>`,
  );
  const dots = reliability
    .filter(({ claims }) => claims > 0)
    .map(
      ({ meanChance, shareTrue, claims }) =>
        `<circle cx="${x(meanChance)}" cy="${y(shareTrue)}" r="${(3 + 9 * Math.sqrt(claims / most)).toFixed(1)}" fill="#9c3a16"/>`,
    );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${left + size + 24} ${top + size + 44}" font-family="sans-serif" font-size="12" fill="#1b2420">`,
    `<title>How often a finding is true, by how sure it was</title><rect width="100%" height="100%" fill="#fffdf6"/>`,
    `<text x="${left}" y="20">True against said, ${count} cars; off by ${(100 * calibrationError).toFixed(1)} % on average</text>`,
    ...lines,
    `<path d="M${x(0)} ${y(0)}L${x(1)} ${y(1)}" stroke="#1b2420" stroke-dasharray="7 5"/>`,
    ...dots,
    `<text x="${left + size / 2}" y="${top + size + 36}" text-anchor="middle">said</text></svg>`,
    '',
  ].join('\n');
}
