import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import type { Assessment } from '../../core/judgement/assessment';
import type { AssessNews, AssessRequest, Experience } from '../../core/judgement/diagnosis';
import type { Reasons } from '../../core/judgement/diagnosis/explanation/reasons';
import type { Job } from '../../core/job';
import type { Notation } from '../../core/measure/units';

/** A job, as it is judged, with what follows from it. */
export interface Judged {
  job: Job;
  assessment: Assessment;
  /** Why, in words, by the key of each finding. */
  reasons: Reasons;
  /** The evidence of the findings is there. */
  weighed: boolean;
}

/** What the page came with is weighed while the first look at the sheet is taken: that makes the worker quick, too. */
const weighedAfterMs = 1500;

const startWorker = () => new Worker(new URL('../../workers/assess.ts', import.meta.url), { type: 'module' });

/**
 * What follows from a job, worked out in a worker as each reading arrives. The verdict comes first, its evidence a
 * moment later; until then what was judged last stands, together with the job it speaks of. `known`: a job that has
 * been judged already, but for its evidence.
 */
export function useAssessment(
  job: Job,
  known: Judged,
  experience: Experience | undefined,
  units: Notation,
): Judged {
  const [latest, setLatest] = useState(known);
  const worker = useRef<Worker>(undefined);
  const turn = useRef(0);
  const knownJob = known.job;
  const now = job === knownJob && latest.job !== job ? known : latest;
  const shown = useRef(now);

  useEffect(() => {
    shown.current = now;
  });

  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = undefined;
    },
    [],
  );

  // Before the reading itself is painted: the verdict is on its way meanwhile.
  useLayoutEffect(() => {
    const judge = () => {
      const there = (worker.current ??= startWorker());
      turn.current += 1;
      const mine = turn.current;
      const before = shown.current;
      const listen = ({ data }: MessageEvent<AssessNews>) => {
        if (data.turn !== mine) return;
        const assessment = data.weighed ? data.assessment : withEvidenceOf(before, job, data.assessment);
        setLatest({ job, assessment, reasons: data.reasons, weighed: data.weighed });
      };
      there.addEventListener('message', listen);
      there.postMessage({ turn: mine, job, experience, units } satisfies AssessRequest);
      return () => there.removeEventListener('message', listen);
    };
    if (job !== knownJob) return judge();
    let stop: (() => void) | undefined;
    const timer = setTimeout(() => {
      stop = judge();
    }, weighedAfterMs);
    return () => {
      clearTimeout(timer);
      stop?.();
    };
  }, [job, knownJob, experience, units]);

  return now;
}

/** What spoke for a finding before stays in sight until the evidence is weighed anew, where it still points right. */
function withEvidenceOf(before: Judged, job: Job, assessment: Assessment): Assessment {
  const isSame = before.job.observations.every((seen, index) => {
    const other = job.observations[index];
    return other?.kind === seen.kind && other.at === seen.at;
  });
  if (!isSame) return assessment;
  return {
    ...assessment,
    findings: assessment.findings.map((finding) => {
      const known = before.assessment.findings.find(
        ({ code, wheels }) => code === finding.code && wheels.join() === finding.wheels.join(),
      );
      return known ? { ...finding, evidence: known.evidence } : finding;
    }),
  };
}
