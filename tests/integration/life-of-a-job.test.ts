import { v7 as newKey } from 'uuid';
import { describe, expect, it } from 'vitest';
import { assess } from '../../src/core/judgement/diagnosis';
import { findingsThatHold } from '../../src/core/judgement/assessment';
import { atWheel, latest, type Observation } from '../../src/core/job';
import { parseJob } from '../../src/core/job/schema';
import { metric } from '../../src/core/measure/units';
import {
  bookIn,
  cancelJob,
  editJob,
  exportJob,
  handOver,
  historyOf,
  importJob,
  record,
  reopenJob,
  takeBack,
  viewJob,
  yard,
} from '../../src/services/jobs';
import { sheetPdf } from '../../src/services/sheet-pdf';
import { setShop, shopSettings } from '../../src/services/shop';
import { listProfiles, lookUp } from '../../src/services/vehicles';
import { gauge, lamp } from '../support/car';
import { must } from '../support/must';
import { person } from '../support/people';

const ines = person();
const vehicle = (more: object = {}) => ({ label: 'Tarn Velo', plate: `L ${newKey().slice(-6)}`, ...more });
const booked = async (more: object = {}) =>
  must(await bookIn({ key: newKey(), vehicle: vehicle(), ...more }, ines));
const versionOf = async (id: string) => must(await viewJob(id)).version;

describe('what was recorded by mistake', () => {
  it('is taken back: out of judgement, kept with who and why, in the file and out of it again', async () => {
    const { id } = await booked();
    const [wrong, right] = [newKey(), newKey()];
    must(await record(id, { key: wrong, observation: gauge(1, 'LF', 30) }, ines));
    must(await record(id, { key: right, observation: gauge(2, 'RF', 230) }, ines));
    const view = must(await takeBack(id, { observation: wrong, reason: 'other car' }, ines));
    expect(view.job.observations.map(({ key }) => key)).toEqual([right]);
    expect(view.job.corrected).toMatchObject([{ takenBack: { by: ines.name, reason: 'other car' } }]);
    // Again changes nothing; what is not there cannot be taken back.
    expect(must(await takeBack(id, { observation: wrong, reason: 'again' }, ines)).revision).toBe(
      view.revision,
    );
    expect(await takeBack(id, { observation: newKey(), reason: 'x' }, ines)).toMatchObject({
      problem: { code: 'nothing-to-correct' },
    });
    const history = must(await historyOf(id));
    expect(history.find((line) => line.kind === 'recorded' && line.key === wrong)).toMatchObject({
      takenBack: { reason: 'other car' },
    });

    const file = must(await exportJob(id));
    expect(parseJob(JSON.parse(JSON.stringify(file))).ok).toBe(true);
    const elsewhere = { ...file, visit: { ...file.visit, key: newKey() } };
    const renamed = JSON.parse(
      JSON.stringify(elsewhere).replaceAll(wrong, newKey()).replaceAll(right, newKey()),
    );
    const copy = must(await importJob(must(parseJob(renamed)), ines));
    expect(must(await viewJob(copy.id)).job.corrected).toMatchObject([
      { takenBack: { reason: 'other car' } },
    ]);
  });

  it('by the counter is the lamp alone', async () => {
    const pilar = person('adviser');
    const { id } = await booked();
    const [seen, read] = [newKey(), newKey()];
    must(await record(id, { key: seen, observation: lamp(1, 'steady') }, pilar));
    must(await record(id, { key: read, observation: gauge(1, 'LF', 230) }, ines));
    expect(await takeBack(id, { observation: read, reason: 'x' }, pilar)).toMatchObject({
      problem: { code: 'not-allowed' },
    });
    must(await takeBack(id, { observation: seen, reason: 'other car' }, pilar));
  });
});

describe('a reading from a device whose clock is fast', () => {
  const inMinutes = (n: number) => new Date(Date.now() + n * 60_000).toISOString();

  it('does not stand above what was read after it', async () => {
    const { id } = await booked({ placard: [{ position: 'front', coldKPa: 230 }] });
    const [early, late] = [newKey(), newKey()];
    must(await record(id, { key: early, observation: { ...gauge(0, 'LF', 230), at: inMinutes(5) } }, ines));
    const view = must(
      await record(id, { key: late, observation: { ...gauge(0, 'LF', 120), at: inMinutes(0) } }, ines),
    );
    expect(latest(atWheel(view.job, 'gauge', 'LF'))?.seen).toMatchObject({ kPa: 120 });
    expect(findingsThatHold(assess(view.job)).map(({ code }) => code)).toContain('tire-low');
    expect(must(await historyOf(id))).toMatchObject([
      { key: late },
      { key: early, observation: { saidAt: expect.any(String) } },
    ]);
  });

  it('is set right however it comes: recorded, booked in with, or from a file', async () => {
    const far = { ...lamp(0, 'steady'), at: '2031-01-01T00:00:00Z' };
    const { id } = await booked({ observations: [{ key: newKey(), observation: far }] });
    const file = must(await exportJob(id));
    const copy = must(
      await importJob(
        must(
          parseJob({
            ...file,
            visit: { ...file.visit, key: newKey() },
            observations: [{ ...far, key: newKey() }],
          }),
        ),
        ines,
      ),
    );
    for (const job of [id, copy.id]) {
      const [seen] = must(await viewJob(job)).job.observations;
      expect(Date.parse(seen?.at ?? '')).toBeLessThanOrEqual(Date.now());
      expect(seen).toMatchObject({ saidAt: far.at });
    }
  });
});

describe('what the counter may not record', () => {
  it('it cannot bring in with a booking either, and no job is made of it', async () => {
    const pilar = person('adviser');
    const plate = `L ${newKey().slice(-6)}`;
    const asked = (observation: Observation) =>
      bookIn(
        { key: newKey(), vehicle: vehicle({ plate }), observations: [{ key: newKey(), observation }] },
        pilar,
      );
    expect(await asked(gauge(0, 'LF', 230))).toMatchObject({ problem: { code: 'not-allowed' } });
    expect((await yard()).some((line) => line.plate === plate)).toBe(false);
    must(await asked(lamp(0, 'steady')));
  });
});

describe('a job that is cancelled', () => {
  it('takes nothing more, stands in the Yard as cancelled, and can be opened again', async () => {
    const { id } = await booked();
    const reason = 'the car left';
    const view = must(await cancelJob(id, { key: newKey(), version: await versionOf(id), reason }, ines));
    expect(view).toMatchObject({
      state: 'cancelled',
      job: { visit: { cancelled: { reason, by: ines.name } } },
    });
    expect((await yard()).find((line) => line.id === id)?.state).toBe('cancelled');
    const reading = { key: newKey(), observation: gauge(1, 'LF', 230) };
    expect(await record(id, reading, ines)).toMatchObject({ problem: { code: 'cancelled' } });
    expect(
      await handOver(id, { key: newKey(), version: view.version, unproved: 'none' }, ines),
    ).toMatchObject({ problem: { code: 'cancelled' } });
    const again = must(await reopenJob(id, { key: newKey(), version: view.version }, ines));
    expect(again.state).toBe('open');
    expect(again.job.visit?.cancelled).toBeUndefined();
    must(await record(id, reading, ines));
    const states = must(await historyOf(id)).flatMap((line) =>
      line.kind === 'changed' ? line.changes.map(({ to }) => to) : [],
    );
    expect(states).toEqual(['open', `cancelled: ${reason}`]);
  });

  it('by two at once is cancelled once, and told to the second', async () => {
    const { id } = await booked();
    const version = await versionOf(id);
    const both = await Promise.all(
      ['one', 'two'].map((reason) =>
        cancelJob(id, { key: newKey(), version, reason: `${reason} left` }, ines),
      ),
    );
    expect(both.every(({ ok }) => ok)).toBe(true);
    expect(must(await historyOf(id)).filter((line) => line.kind === 'changed')).toHaveLength(1);
  });
});

describe('a car that is booked in', () => {
  it('while its job is open leads to that job, whoever was first', async () => {
    const car = vehicle({ vin: '1M8GDM9AXKP042788' });
    const first = must(await bookIn({ key: newKey(), vehicle: car }, ines));
    const second = await bookIn({ key: newKey(), vehicle: car }, ines);
    expect(second).toMatchObject({ problem: { code: 'already-open', issues: [{ message: first.id }] } });
    expect((await lookUp({ plate: car.plate }))?.openJob).toEqual(first);
  });

  it('again after it left follows up the job it left with; both say so', async () => {
    const { id, number } = await booked();
    must(await handOver(id, { key: newKey(), version: await versionOf(id), unproved: 'in a hurry' }, ines));
    const { plate = '' } = must(await viewJob(id)).job.vehicle;
    const next = must(
      await bookIn({ key: newKey(), vehicle: { label: 'Tarn Velo', plate }, followUpOf: id }, ines),
    );
    expect(must(await viewJob(next.id)).job.visit).toMatchObject({ followUpOf: { id, number } });
    expect(must(await viewJob(id)).job.visit).toMatchObject({ followedUpBy: { id: next.id } });
    expect(must(await viewJob(id)).state).toBe('handed-over');
  });

  it('of a kind that is not on file keeps that kind for the next one, once', async () => {
    const label = `Tarn Velo ${newKey()}`;
    const tpms = { kind: 'direct' as const, frequencyMHz: 433.92, lowOnKPa: 180 };
    const book = () => bookIn({ key: newKey(), vehicle: { ...vehicle(), tpms }, keepKindAs: label }, ines);
    const first = must(await book());
    must(await book());
    const kept = (await listProfiles()).filter((profile) => profile.label === label);
    expect(kept).toHaveLength(1);
    expect(must(await viewJob(first.id)).job.vehicle).toMatchObject({ profile: kept[0]?.name, tpms });
    const third = must(
      await bookIn({ key: newKey(), vehicle: { ...vehicle(), profile: kept[0]?.name ?? '' } }, ines),
    );
    expect(must(await viewJob(third.id)).job.vehicle.tpms).toMatchObject(tpms);
  });
});

describe('what was entered of the car', () => {
  const change = async (id: string, vehicleChanges: object) =>
    editJob(id, { key: newKey(), version: await versionOf(id), changes: { vehicle: vehicleChanges } }, ines);

  it('is corrected until it leaves, with what stood before on record', async () => {
    const { id } = await booked();
    const view = must(await change(id, { label: 'Tarn Alba', vin: '1m8gdm9axkp042799', modelYear: 2019 }));
    expect(view.job.vehicle).toMatchObject({ label: 'Tarn Alba', vin: '1M8GDM9AXKP042799', modelYear: 2019 });
    const lines = must(await historyOf(id)).flatMap((line) => (line.kind === 'changed' ? line.changes : []));
    expect(lines).toContainEqual({ field: 'label', from: 'Tarn Velo', to: 'Tarn Alba' });
    expect(lines).toContainEqual({ field: 'vin', from: null, to: '1M8GDM9AXKP042799' });
  });

  it('by a VIN that is known belongs to that vehicle from then on', async () => {
    const vin = '1M8GDM9AXKP042755';
    const known = must(await bookIn({ key: newKey(), vehicle: vehicle({ vin }) }, ines));
    must(await handOver(known.id, { key: newKey(), version: 1, unproved: 'in a hurry' }, ines));
    const { id } = await booked();
    must(await change(id, { vin }));
    expect(await lookUp({ vin })).toMatchObject({ visits: 2, openJob: { id } });
  });

  it('with a kind that nobody has on file is refused', async () => {
    const { id } = await booked();
    expect(await change(id, { profile: 'nobody-has-it' })).toMatchObject({
      problem: { code: 'unknown-profile' },
    });
  });
});

describe('the sheet as a PDF', () => {
  it('is one page on either paper, with what matters as text', async () => {
    const { id } = await booked({ customer: 'R. Valdes', orderNumber: '4711', complaint: 'Lamp on' });
    must(await record(id, { key: newKey(), observation: gauge(1, 'LF', 230) }, ines));
    const settings = await shopSettings();
    for (const [region, box] of [
      ['GB', '/MediaBox [0 0 595.28 841.89]'],
      ['US', '/MediaBox [0 0 612 792]'],
    ] as const) {
      must(await setShop({ ...settings, region, name: 'Three Palms' }, person('manager')));
      const bytes = must(await sheetPdf(id, metric));
      const text = Buffer.from(bytes).toString('latin1');
      // PDF 1.7 (ISO 32000-1): a header, one page object, the size of its paper in points.
      expect(text.startsWith('%PDF-1.')).toBe(true);
      expect(text.match(/\/Type \/Page\b(?!s)/g)).toHaveLength(1);
      expect(text).toContain(box);
    }
    must(await setShop(settings, person('manager')));
    expect(await sheetPdf(newKey(), metric)).toMatchObject({ problem: { code: 'unknown-job' } });
  });

  it('of a long visit still is one page', async () => {
    const { id } = await booked();
    for (let n = 0; n < 12; n += 1)
      must(await record(id, { key: newKey(), observation: gauge(n * 30, 'LF', n % 2 ? 230 : 150) }, ines));
    const bytes = must(await sheetPdf(id, metric));
    expect(
      Buffer.from(bytes)
        .toString('latin1')
        .match(/\/Type \/Page\b(?!s)/g),
    ).toHaveLength(1);
  });

  it('carries what the customer drew', async () => {
    const { id } = await booked();
    const strokes = [[100, 100, 300, 200, 500, 120]];
    const version = await versionOf(id);
    const view = must(
      await handOver(id, { key: newKey(), version, unproved: 'in a hurry', signature: { strokes } }, ines),
    );
    expect(view.job.visit?.signature).toMatchObject({ strokes });
    expect(must(await sheetPdf(id, metric)).length).toBeGreaterThan(2000);
  });
});
