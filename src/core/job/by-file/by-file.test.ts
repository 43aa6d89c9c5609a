import { describe, expect, it } from 'vitest';
import {
  gauge,
  gauges,
  jobWith,
  lamp,
  lives,
  registry,
  registryWrite,
  scans,
} from '../../../../tests/support/car';
import { assess } from '../../judgement/diagnosis';
import { proofOf } from '../../visit/proof';
import { nextMove } from '../../visit';
import { hasFactsByFile, madeHere, markedByFile } from '.';

const mark = { at: '2026-03-02T08:00:00Z', by: 'Marisol' };
const proving = [...gauges(1), ...scans(2), registry(3), ...lives(20, undefined, 62), lamp(25, 'off')];
const by = (job: ReturnType<typeof jobWith>) =>
  nextMove(job, { assessment: assess(job), handedOver: false, hasLead: true, hasTool: true });

describe('what came by a file', () => {
  const file = markedByFile(jobWith(proving, { carWrites: [registryWrite()] }), mark);

  it('is marked, every fact of it, and only that', () => {
    expect(hasFactsByFile(file)).toBe(true);
    expect([...file.observations, ...(file.carWrites ?? [])].every(({ byFile }) => byFile === mark)).toBe(
      true,
    );
    expect(madeHere(file)).toMatchObject({ observations: [], carWrites: [] });
    const own = jobWith(proving);
    expect(madeHere(own)).toBe(own);
  });

  it('never proves that a car is put right, and the next move is to see for oneself', () => {
    const told = markedByFile(jobWith(proving), mark);
    expect(proofOf(jobWith(proving)).proved).toBe(true);
    expect(proofOf(told).proved).toBe(false);
    expect(proofOf(told).checks.find(({ name }) => name === 'pressures')?.text).toContain('proves nothing');
    expect(by(told).kind).not.toBe('hand-over');
  });

  it('counts against a car: what was proved here is not, once a file says a tire is low', () => {
    const own = jobWith(proving);
    const low = { ...gauge(30, 'RF', 140), byFile: mark };
    expect(proofOf({ ...own, observations: [...own.observations, low] }).proved).toBe(false);
  });
});
