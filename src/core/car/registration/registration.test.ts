import { describe, expect, it } from 'vitest';
import { heard, ids, jobWith, registry, scans } from '../../../../tests/support/car';
import type { Job, Observation } from '../../job';
import { ledgerOf } from '../../job/ledger';
import { compareRegistration, doublyRegistered } from '.';

const compare = (job: Job) => compareRegistration(job, ledgerOf(job));
const held = (but: Parameters<typeof registry>[1]): Observation[] => [...scans(1), registry(2, but)];

describe('registered against scanned', () => {
  it('is not compared before both were looked at', () => {
    expect(compare(jobWith(scans(1)))).toBeUndefined();
    expect(compare(jobWith([registry(2)]))).toBeUndefined();
  });

  it('is in order where every scanned ID is held at its wheel, whatever the case', () => {
    expect(compare(jobWith(held({ RR: ids.RR.toLowerCase() })))).toEqual({ ok: true, mismatches: [] });
    expect(compare(jobWith([heard(1, 'LF'), registry(2)]))).toEqual({ ok: true, mismatches: [] });
  });

  it.each([
    ['absent', '90FFE0A1', '90FFE0A1'],
    ['absent', null, null],
    ['mistyped', '4B11E0F', '4B11E0F'],
    ['mistyped', '4B1E10F6', '4B1E10F6'],
  ] as const)('is %s where the car holds %s', (kind, id, registered) => {
    expect(compare(jobWith(held({ RR: id })))).toEqual({
      ok: false,
      mismatches: [{ wheel: 'RR', scanned: ids.RR, registered, kind }],
    });
  });

  it('is elsewhere where two wheels are exchanged, at both', () => {
    expect(
      compare(jobWith(held({ LF: ids.RF, RF: ids.LF })))?.mismatches.map(
        ({ wheel, kind }) => `${wheel} ${kind}`,
      ),
    ).toEqual(['LF elsewhere', 'RF elsewhere']);
  });

  it('does not take an ID that belongs to another wheel for a slip', () => {
    // LR's own ID, one digit off RR's, is held at RR: it is elsewhere for LR and absent for RR.
    const near = '4B11E0F7';
    const job = jobWith([
      ...scans(1, { LR: [heard(1, 'LR', { id: near })] }),
      registry(2, { RR: near, LR: null }),
    ]);
    const kinds = Object.fromEntries(
      (compare(job)?.mismatches ?? []).map(({ wheel, kind }) => [wheel, kind]),
    );
    expect(kinds).toEqual({ RR: 'absent', LR: 'elsewhere' });
  });

  it('of a car that keeps a set only asks that the ID is in it', () => {
    expect(compare(jobWith(held({ LF: ids.RF, RF: ids.LF }), { tpms: { locates: false } }))).toEqual({
      ok: true,
      mismatches: [],
    });
    expect(compare(jobWith(held({ LF: '90FFE0A1' }), { tpms: { locates: false } }))?.ok).toBe(false);
  });
});

describe('one ID at two positions', () => {
  it('is found however it is written', () => {
    expect(
      doublyRegistered(
        ledgerOf(jobWith([registry(1, { RF: `${ids.LF.slice(0, 4)}-${ids.LF.slice(4).toLowerCase()}` })])),
      ),
    ).toEqual([['LF', 'RF']]);
    expect(doublyRegistered(ledgerOf(jobWith([registry(1, { LF: null, RF: null })])))).toEqual([]);
  });
});
