import Ajv from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { exportedJob } from '../../../tests/support/arbitrary-job';
import { fromJobFile, toJobFile } from './record';
import { jobSchema, parseJob } from './schema';

/** The keys of an exported file are ours already. */
const same = (key: string) => key;

describe('a job file', () => {
  it('exported, taken in and exported again is equal, unknown keys and corrections included', () => {
    fc.assert(
      fc.property(exportedJob, (file) => {
        const job = parseJob(file);
        if (!job.ok) throw new Error(JSON.stringify(job.problem));
        expect(toJobFile(fromJobFile(job.value, same))).toEqual(file);
      }),
    );
  });

  it('is accepted by its published JSON Schema, as ajv reads it', () => {
    const ajv = new Ajv({ strict: false });
    addFormats(ajv);
    const valid = ajv.compile(z.toJSONSchema(jobSchema, { io: 'input' }));
    fc.assert(
      fc.property(exportedJob, (file) => {
        expect(valid(file), JSON.stringify(valid.errors)).toBe(true);
      }),
    );
    expect(valid({ format: 'hacienda.job/1' })).toBe(false);
  });

  it('of another program gets keys for its observations', () => {
    const job = parseJob({
      format: 'hacienda.job/1',
      vehicle: { tpms: { kind: 'direct' } },
      observations: [{ kind: 'lamp', at: '2026-10-14T14:00:00+02:00', state: 'off' }],
    });
    expect(job.ok && fromJobFile(job.value, (key) => `ours, of ${key}`).entries).toMatchObject([
      { key: 'ours, of entry 1' },
    ]);
  });

  it('of another program keeps what replaced what under keys of ours', () => {
    const seen = { kind: 'lamp', at: '2026-10-14T14:00:00+02:00', state: 'off' };
    const job = parseJob({
      format: 'hacienda.job/1',
      vehicle: { tpms: { kind: 'direct' } },
      observations: [{ ...seen, key: 'r2' }],
      corrected: [{ replacedBy: 'r2', observation: { ...seen, key: 'r1' } }],
    });
    if (!job.ok) throw new Error(job.problem.message);
    expect(fromJobFile(job.value, (key) => `our ${key}`).entries).toMatchObject([
      { key: 'our r1' },
      { key: 'our r2', replaces: 'our r1' },
    ]);
  });

  it('with a fault is refused with the path and what was expected', () => {
    const job = parseJob({
      format: 'hacienda.job/1',
      vehicle: { tpms: { kind: 'direct' } },
      placard: [{ position: 'front', coldKPa: 'thirty' }],
      observations: [],
    });
    expect(job).toMatchObject({
      ok: false,
      problem: { code: 'invalid-job', issues: [{ path: 'placard.0.coldKPa', message: 'expected number' }] },
    });
  });

  it('keeps an ID of the wrong length: somebody typed it', () => {
    const at = '2026-10-14T14:00:00+00:00';
    const entries = [{ wheel: 'LF', id: '4b07-c2' }];
    const job = parseJob({
      format: 'hacienda.job/1',
      vehicle: { tpms: { kind: 'direct', idDigits: 8 } },
      observations: [{ kind: 'registry', at, entries }],
    });
    expect(job.ok && job.value.observations[0]).toMatchObject({ entries });
  });
});
