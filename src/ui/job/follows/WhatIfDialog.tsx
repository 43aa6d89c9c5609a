import { ArrowDown, ArrowRight, ArrowUp } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { Assessment } from '../../../core/judgement/assessment';
import type { Experience } from '../../../core/judgement/diagnosis';
import { titleOf } from '../../../core/catalogue/finding';
import type { Job, Observation } from '../../../core/job';
import { percent } from '../../../core/judgement/assessment/words';
import { describe } from '../../../core/visit/observation';
import { ledgerOf } from '../../../core/job/ledger';
import { monitoredWheels, placardKPa, wheelsOf } from '../../../core/job/placard';
import { parse, pressure, type Notation } from '../../../core/measure/units';
import type { Position } from '../../../core/names/wheel';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Choice, Field, Select } from '../../kit/Field';
import { findingKey } from '../../../core/catalogue/finding';
import { useAssessment } from '../use-assessment';
import styles from './WhatIf.module.css';
import forms from '../../kit/Forms.module.css';

interface WhatIfDialogProps {
  job: Job;
  assessment: Assessment;
  experience: Experience | undefined;
  units: Notation;
  onClose: () => void;
}

/** A difference smaller than this is not worth a line: two in a hundred. */
const leastShift = 0.02;

/** Leave a reading out, or try another one, and see what changes. Nothing is stored. */
export function WhatIfDialog({ job, assessment, experience, units, onClose }: WhatIfDialogProps) {
  const [aside, setAside] = useState<ReadonlySet<number>>(new Set());
  const [supposed, setSupposed] = useState<Observation[]>([]);
  const other = useMemo(
    (): Job =>
      aside.size === 0 && supposed.length === 0
        ? job
        : {
            ...job,
            observations: [...job.observations.filter((_, index) => !aside.has(index)), ...supposed],
          },
    [job, aside, supposed],
  );
  const known = { job, assessment, reasons: {}, weighed: true };
  const then = useAssessment(other, known, experience, units).assessment;
  const toggle = (index: number) =>
    setAside((before) => {
      const next = new Set(before);
      if (!next.delete(index)) next.add(index);
      return next;
    });
  const shifted = shiftsBetween(assessment, then);
  return (
    <Dialog title="What if" wide onClose={onClose}>
      <p>Leave a reading out, or try another one, and see what changes. Nothing is stored.</p>
      <div className={styles.whatIf}>
        <div>
          <h3>Readings</h3>
          <ul className={styles.readings}>
            {job.observations.map((seen, index) => (
              <li key={index}>
                <label className={aside.has(index) ? styles.aside : undefined}>
                  <input type="checkbox" checked={!aside.has(index)} onChange={() => toggle(index)} />
                  {describe(seen, units)}
                </label>
              </li>
            ))}
            {supposed.map((seen, index) => (
              <li key={`supposed ${index}`} className={styles.supposed}>
                <span>Tried: {describe(seen, units)}</span>
                <Button
                  weight="quiet"
                  onClick={() => setSupposed((before) => before.filter((_, at) => at !== index))}
                >
                  Discard
                </Button>
              </li>
            ))}
          </ul>
        </div>
        <div className={styles.verdict} aria-live="polite">
          <h3>Findings</h3>
          {shifted.length === 0 && <p>Nothing moves.</p>}
          <ul className={styles.readings}>
            {shifted.map(({ key, title, before, after }) => (
              <li key={key}>
                <span>{title}</span>
                <span className={styles.change}>
                  {percent(before)}
                  {after > before + leastShift ? (
                    <ArrowUp aria-label="rises to" />
                  ) : after < before - leastShift ? (
                    <ArrowDown aria-label="falls to" />
                  ) : (
                    <ArrowRight aria-label="stays at" />
                  )}
                  <b>{percent(after)}</b>
                </span>
              </li>
            ))}
          </ul>
          <Suppose job={job} units={units} onSuppose={(seen) => setSupposed((before) => [...before, seen])} />
        </div>
      </div>
    </Dialog>
  );
}

/** Each finding before and after, those that shifted most first. */
function shiftsBetween(now: Assessment, then: Assessment) {
  const all = [...now.findings, ...then.findings];
  const chance = ({ findings }: Assessment, key: string) =>
    findings.find((finding) => findingKey(finding) === key)?.probability ?? 0;
  return [...new Map(all.map((finding) => [findingKey(finding), finding]))]
    .map(([key, finding]) => ({
      key,
      title: titleOf(finding),
      before: chance(now, key),
      after: chance(then, key),
    }))
    .filter(({ before, after }) => Math.max(before, after) >= 0.5 || Math.abs(before - after) > leastShift)
    .sort((a, b) => Math.abs(b.after - b.before) - Math.abs(a.after - a.before) || b.after - a.after);
}

const kinds = [
  { value: 'gauge', label: 'gauge' },
  { value: 'silent', label: 'sensor silent' },
  { value: 'answers', label: 'sensor answers' },
] as const;
type Kind = (typeof kinds)[number]['value'];

/** One reading that was not made. */
function Suppose({
  job,
  units,
  onSuppose,
}: {
  job: Job;
  units: Notation;
  onSuppose: (seen: Observation) => void;
}) {
  const [kind, setKind] = useState<Kind>('gauge');
  const [wheel, setWheel] = useState<Position>('LF');
  const [text, setText] = useState('');
  const [error, setError] = useState<string>();
  const monitored = monitoredWheels(job);
  const suppose = () => {
    const at = shopTime();
    setError(undefined);
    if (kind === 'silent')
      return onSuppose({ kind: 'activation', at, wheel, trigger: 'magnet', replies: [] });
    if (kind === 'answers') {
      const { family, frequencyMHz } = job.vehicle.tpms;
      const id =
        ledgerOf(job).registered[wheel] ??
        job.sensors?.find((sensor) => sensor.wheel === wheel)?.id ??
        'FFFF0001';
      const kPa = ledgerOf(job).gauge[wheel]?.seen.kPa ?? placardKPa(job, wheel);
      return onSuppose({
        kind: 'activation',
        at,
        wheel,
        trigger: 'pulsed',
        replies: [
          {
            id,
            battery: 'ok',
            ...(kPa !== undefined && { kPa }),
            ...(family && { family }),
            ...(frequencyMHz && { frequencyMHz }),
          },
        ],
      });
    }
    const read = parse(pressure, text, units.pressure);
    if (!read.ok) return setError(read.problem.message);
    return onSuppose({ kind: 'gauge', at, wheel, kPa: read.value.base, tire: 'cold' });
  };
  return (
    <form
      className={forms.form}
      onSubmit={(event) => {
        event.preventDefault();
        suppose();
      }}
    >
      <Choice
        label="Try a reading"
        options={monitored.length > 0 ? kinds : kinds.slice(0, 1)}
        value={kind}
        onValue={setKind}
      />
      <div className={forms.row}>
        <Select
          label="at"
          options={(kind === 'gauge' ? wheelsOf(job) : monitored).map((value) => ({ value, label: value }))}
          value={wheel}
          onValue={(value) => setWheel(value as Position)}
        />
        {kind === 'gauge' && (
          <Field
            label="reads"
            hint={units.pressure}
            inputMode="decimal"
            value={text}
            error={error}
            onValue={setText}
          />
        )}
      </div>
      <Button type="submit">Try it</Button>
    </form>
  );
}
