import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { parseJob } from '../core/job/schema';
import type { Result } from '../core/result';
import { shopSettingsSchema, usualSettings } from '../core/records/shop';
import { contracts } from '../contract';
import { addGauge, recordCheck } from '../services/gauges';
import { addFollowUp } from '../services/follow-ups';
import { deriveKey, takeIn } from '../services/jobs';
import { saveParts } from '../services/parts';
import { addPerson, listPeople, type Person } from '../services/people';
import { setShop } from '../services/shop';
import { saveProcedures } from '../services/procedures';
import { lookUp, saveProfiles } from '../services/vehicles';
import { saveSet } from '../services/wheel-sets';
import { root } from './instance';
import { Trouble } from './say';
import { dayMs, daysAfter } from '../core/measure/calendar/spans';
import { dayThere } from '../core/measure/calendar';

/** The moment the scenario's files speak of as "now". Everything in them moves with it. */
const scenarioNow = Date.parse('2026-01-09T09:30:00Z');
const timestamp = /\d{4}-\d{2}-\d{2}T\d{2}:\d{2}:\d{2}\+00:00/g;

const peopleSchema = z.array(contracts.addPerson.body);
const gaugesSchema = z.array(
  z.object({
    gauge: contracts.addGauge.body,
    checks: z.array(z.object({ daysAgo: z.number(), by: z.string(), check: contracts.recordCheck.body })),
  }),
);
const read = (name: string): unknown => JSON.parse(readFileSync(join(root, 'demo', name), 'utf8'));

/**
 * Loads the invented shop through the same services as real use, once. The folder remembers that it is
 * done; a load that was cut short is taken up again, since none of its steps happens twice.
 */
export async function loadDemo(folder: string, now = Date.now()): Promise<void> {
  const loaded = join(folder, 'demo-loaded');
  if (existsSync(loaded)) return;
  const shift = now - scenarioNow;
  const people = peopleSchema.parse(read('people.json'));
  for (const person of people) {
    const added = await addPerson(person);
    if (!added.ok && added.problem.code !== 'name-taken') must(added);
  }
  const manager = (await listPeople()).find(({ role }) => role === 'manager');
  if (!manager) throw new Trouble('demo/people.json names no manager.');
  must(await saveProfiles(contracts.saveProfiles.body.parse(read('profiles.json')), manager));
  must(await saveProcedures(contracts.saveProcedures.body.parse(read('procedures.json')), manager));
  must(await saveParts(contracts.saveParts.body.parse(read('parts.json')), manager));
  must(
    await setShop(
      shopSettingsSchema.parse({ ...usualSettings, ...z.looseObject({}).parse(read('shop.json')) }),
      manager,
    ),
  );
  for (const { gauge, checks } of gaugesSchema.parse(read('gauges.json'))) {
    must(await addGauge(gauge, manager));
    for (const { daysAgo, by, check } of checks)
      must(await recordCheck(gauge.key, check, { ...manager, name: by }, new Date(now - daysAgo * dayMs)));
  }
  for (const file of readdirSync(join(root, 'demo/visits')).sort()) {
    const text = readFileSync(join(root, 'demo/visits', file), 'utf8');
    const moved = text.replace(timestamp, (at) => new Date(Date.parse(at) + shift).toISOString());
    must(await takeIn(must(parseJob(JSON.parse(moved))), manager));
  }
  await loadMemory(manager, now);
  writeFileSync(loaded, new Date(now).toISOString());
}

const memorySchema = z.array(
  z.object({
    plate: z.string(),
    sets: z.array(contracts.saveSet.body.omit({ id: true, version: true })),
    followUps: z.array(
      contracts.addFollowUp.body
        .pick({ about: true, wheel: true, note: true })
        .extend({ dueInDays: z.int() }),
    ),
  }),
);

/** What is remembered of a car beside its visits. */
async function loadMemory(who: Person, now: number): Promise<void> {
  for (const { plate, sets, followUps } of memorySchema.parse(read('wheel-sets.json'))) {
    const vehicle = (await lookUp({ plate }))?.id;
    if (!vehicle) throw new Trouble(`demo/wheel-sets.json names ${plate}, which no visit has.`);
    for (const set of sets)
      must(await saveSet(vehicle, { ...set, id: deriveKey(plate, set.label), version: 0 }));
    for (const { dueInDays, ...one } of followUps) {
      const dueOn = dayThere(daysAfter(now, dueInDays), { timeZone: 'UTC' });
      must(await addFollowUp({ key: deriveKey(plate, one.about), vehicle, ...one, dueOn }, who));
    }
  }
}

function must<Value>(result: Result<Value>): Value {
  if (result.ok) return result.value;
  const issues = result.problem.issues?.map(({ path, message }) => `${path}: ${message}`) ?? [];
  throw new Trouble(`The demo does not load: ${result.problem.message} ${issues.join('; ')}`);
}
