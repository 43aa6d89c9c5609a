import { useMemo, useState } from 'react';
import { asJudged } from '../../core/tire/gauge';
import type { Job } from '../../core/job';
import { proofOf, type Proof } from '../../core/visit/proof';
import { nextMove, worthwhileCheck, type Move } from '../../core/visit';
import { shownOf, type Shown } from '../../core/visit/shown';
import { readable, type VisitView } from '../../contract/views';
import type { Notation } from '../../core/measure/units';
import { useAssessment, type Judged } from './use-assessment';

/** What follows from the facts on this device: one verdict, from which proof and next move are derived. */
export interface Verdict {
  /** The facts as they are judged, with what is still on its way to the shop. */
  job: Job;
  /** The job the verdict speaks of: that one, or the one before while it is being judged. */
  judged: Judged;
  proof: Proof;
  move: Move;
  /** The findings as they stand in sight. */
  shown: Shown;
  /** A check that is worth its minutes and can be done here. */
  check: ReturnType<typeof worthwhileCheck>;
}

/**
 * `initial` and `first`: the visit as the page came with it, and what follows from it. Everything after is judged here, so
 * that verdict, proof and move cannot disagree, with or without a connection.
 */
export function useVerdict(
  initial: VisitView,
  first: Pick<Judged, 'assessment' | 'reasons'>,
  view: VisitView,
  facts: Job,
  units: Notation,
): Verdict {
  const [start] = useState<Judged>(() => ({
    job: asJudged(initial.job, initial.gauges),
    weighed: false,
    ...first,
  }));
  const { gauges, devices, state, experience } = view;
  const job = useMemo(
    () => (facts === initial.job && gauges === initial.gauges ? start.job : asJudged(facts, gauges)),
    [facts, gauges, initial, start],
  );
  const judged = useAssessment(job, start, experience, units);
  const derived = useMemo(() => {
    const { assessment, job: spokenOf } = judged;
    const atHand = { assessment, ...readable(devices) };
    const handedOver = state !== 'open';
    const move = nextMove(spokenOf, { ...atHand, handedOver });
    return {
      proof: proofOf(spokenOf),
      move,
      shown: shownOf(spokenOf, assessment, move),
      check: handedOver ? undefined : worthwhileCheck(spokenOf, atHand),
    };
  }, [judged, devices, state]);
  return { job, judged, ...derived };
}
