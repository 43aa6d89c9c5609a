import { useEffect, useMemo, useState } from 'react';
import { v7 as newKey } from 'uuid';
import { z } from 'zod';
import { calibrationOf, checkPlanKPa, type Instrument } from '../../core/tire/gauge';
import { checkPointSchema } from '../../core/job/schemas/instrument';
import { figure, parse, pressure, type Notation } from '../../core/measure/units';
import { ask } from '../api';
import { useDeeds } from '../deeds';

/** Five points going up and the same coming down. */
export const plan = [
  ...checkPlanKPa.map((kPa) => ({ way: 'up' as const, kPa })),
  ...[...checkPlanKPa].reverse().map((kPa) => ({ way: 'down' as const, kPa })),
];

/** What was typed so far: kept on this device, so that a check that was broken off goes on. */
const draftSchema = z.object({
  key: z.string(),
  reference: z.string(),
  uncertainty: z.string(),
  points: z.array(checkPointSchema),
});
type Draft = z.infer<typeof draftSchema>;

function draftFrom(kept: string): Draft | undefined {
  try {
    return draftSchema.safeParse(JSON.parse(kept)).data;
  } catch {
    return undefined;
  }
}

/** A check as far as it has come: its points one by one, then what it was compared with. */
export function useGaugeCheck(gauge: Instrument, units: Notation) {
  const storage = `hacienda.check.${gauge.id}`;
  const last = gauge.checks.at(-1);
  const [draft, setDraft] = useState<Draft>(() => ({
    key: '',
    reference: last?.reference ?? '',
    uncertainty: figure(pressure, last?.referenceUncertaintyKPa ?? 1, units),
    points: [],
  }));
  const [referenceTyped, setReferenceTyped] = useState('');
  const [readTyped, setReadTyped] = useState('');
  const [errors, setErrors] = useState<{
    reference?: string;
    uncertainty?: string;
    at?: string;
    read?: string;
  }>({});
  const { once, busy, problem } = useDeeds();
  const [done, setDone] = useState<Instrument>();

  useEffect(() => {
    const kept = draftFrom(localStorage.getItem(storage) ?? '');
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the browser's storage exists from here on
    if (kept) setDraft(kept);
  }, [storage]);
  const keep = (next: Draft) => {
    setDraft(next);
    localStorage.setItem(storage, JSON.stringify(next));
  };

  const step = plan[draft.points.length];
  const check = useMemo(
    () => ({ ...draft, at: '', by: '', referenceUncertaintyKPa: 0, points: draft.points }),
    [draft],
  );
  const calibration = calibrationOf(check, gauge.resolutionKPa);

  const takePoint = () => {
    if (!step) return;
    const at = referenceTyped.trim() === '' ? undefined : parse(pressure, referenceTyped, units.pressure);
    const read = parse(pressure, readTyped, units.pressure);
    const wrong: typeof errors = {};
    if (at && !at.ok) wrong.at = at.problem.message;
    if (!read.ok) wrong.read = read.problem.message;
    setErrors(wrong);
    if (!read.ok || (at && !at.ok)) return;
    const referenceKPa = at?.value.base ?? step.kPa;
    keep({ ...draft, points: [...draft.points, { way: step.way, referenceKPa, readKPa: read.value.base }] });
    setReferenceTyped('');
    setReadTyped('');
  };

  const store = async () => {
    const uncertainty = parse(pressure, draft.uncertainty, units.pressure);
    const wrong: typeof errors = {};
    if (draft.reference.trim() === '') wrong.reference = 'Say what it was compared with.';
    if (!uncertainty.ok) wrong.uncertainty = uncertainty.problem.message;
    setErrors(wrong);
    if (!uncertainty.ok || wrong.reference) return;
    const key = draft.key || newKey();
    keep({ ...draft, key });
    const body = {
      key,
      reference: draft.reference,
      referenceUncertaintyKPa: uncertainty.value.base,
      points: draft.points,
    };
    // Its key is the draft's: it is kept on this device with it.
    const stored = await once('check', () => ask('recordCheck', { id: gauge.id, body }));
    if (!stored?.ok) return;
    localStorage.removeItem(storage);
    setDone(stored.value);
  };

  return {
    draft,
    keep,
    step,
    calibration,
    referenceTyped,
    setReferenceTyped,
    readTyped,
    setReadTyped,
    errors,
    takePoint,
    store,
    problem: problem?.message,
    busy,
    done,
  };
}
