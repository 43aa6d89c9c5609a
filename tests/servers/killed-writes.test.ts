import { readFileSync } from 'node:fs';
import { v7 as newKey } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plugIn, readRegistry } from '../../src/devices/bay';
import { parseAddress } from '../../src/devices/json-rpc';
import { writeVerdict } from '../../src/core/job/car-write';
import { idsToWrite } from '../../src/core/visit';
import type { VisitView } from '../../src/contract/views';
import { must } from '../support/must';
import { Client, openShop, type Shop } from '../support/shop';
import { Wire } from '../support/wire';

/** One for each message at which a write is cut off, and one that is not. */
const carsThere = 32;
const [demoCar] = JSON.parse(
  readFileSync(new URL('../../demo/cars.json', import.meta.url), 'utf8'),
) as object[];
const vinOf = (n: number) => `0HAVE1A96K20044${String(n).padStart(2, '0')}`;

let shop: Shop;
let ines: Client;
let wire: Wire;
beforeAll(async () => {
  wire = await Wire.open();
  shop = await openShop({
    cars: Array.from({ length: carsThere }, (_, n) => ({ ...demoCar, vin: vinOf(n), writeMs: 20 })),
    environment: { HACIENDA_LEAD: `127.0.0.1:${wire.port}` },
  });
  ines = await Client.signIn(shop.address);
});
afterAll(async () => {
  await shop?.close();
  wire?.close();
});

const soon = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const view = (id: string) => ines.get<VisitView>(`/api/jobs/${id}`);
const open = async (n: number) => {
  const booked = await ines.post<{ id: string }>('/api/jobs', {
    key: newKey(),
    vehicle: { label: `Vela ${n}`, vin: vinOf(n), profile: 'corriente-vela' },
  });
  return booked.id;
};

describe('a write to a car, the server killed at any of its messages', () => {
  it('says it worked only where the car holds what was asked', async () => {
    const bay = parseAddress(shop.environment.HACIENDA_BAY ?? '');
    if (!bay) throw new Error('no bay');
    const jobs: { id: string; key: string; vin: string }[] = [];
    let cutOff = 0;
    let wasWhole = false;
    for (let n = 1; n < carsThere && !wasWhole; n += 1) {
      const vin = vinOf(n);
      wire.to = must(await plugIn(bay, vin)).port;
      const id = await open(n);
      await ines.post(`/api/jobs/${id}/read-car`, { key: newKey() });
      const held = idsToWrite((await view(id)).job);
      const entries = held.map(({ wheel, id: sensor }, at) => ({
        wheel,
        id: at === 0 ? '4B07C2DF' : sensor,
      }));
      const key = newKey();
      jobs.push({ id, key, vin });
      // Where the reads before a write are done, at the message of that number the server is no more.
      const from = wire.count;
      wire.onMessage = (count) => {
        if (count - from === n) shop.server.kill('SIGKILL');
      };
      const answer = await ines
        .send('POST', `/api/jobs/${id}/write-ids`, { key, entries })
        .catch(() => undefined);
      wire.onMessage = () => undefined;
      wasWhole = answer?.ok === true;
      if (wasWhole) break;
      cutOff += 1;
      await shop.restartServer();
    }
    expect(cutOff).toBeGreaterThan(3);
    expect(wasWhole).toBe(true);
    const truth = async (vin: string, wheel: string) =>
      must(await readRegistry(bay, vin)).entries.find((entry) => entry.wheel === wheel)?.id;
    const verdictOf = async ({ id, key }: { id: string; key: string }) => {
      const write = (await view(id)).job.carWrites?.find((one) => one.key === key);
      return (
        write && {
          verdict: writeVerdict(write),
          asked: write.kind === 'registry' ? write.asked[0] : undefined,
        }
      );
    };
    for (const job of jobs) {
      const said = await verdictOf(job);
      if (said?.verdict === 'worked')
        expect(await truth(job.vin, said.asked?.wheel ?? '')).toBe(said.asked?.id);
    }
    // The car may be at it for ten seconds; then reading it back tells, of each of them.
    await soon(10_500);
    for (const job of jobs) {
      if (!(await verdictOf(job))) continue;
      wire.to = must(await plugIn(bay, job.vin)).port;
      await ines.post(`/api/jobs/${job.id}/read-back`, { write: job.key });
      const said = await verdictOf(job);
      const holds = (await truth(job.vin, said?.asked?.wheel ?? '')) === said?.asked?.id;
      expect(said?.verdict, job.vin).toBe(holds ? 'worked' : 'failed');
    }
  }, 600_000);
});
