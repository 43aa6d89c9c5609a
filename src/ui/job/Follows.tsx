import type { Assessment } from '../../core/assessment';
import { isCalm, titleOf, toRead } from '../../core/diagnosis/actions';
import type { Job } from '../../core/job';
import { describe, lampWords, percent, sureness } from '../../core/job/words';
import { ledgerOf } from '../../core/ledger';
import type { UnitChoice } from '../../core/units';
import { Button } from '../kit/Button';
import styles from './Follows.module.css';

/** So many observations are named under a finding; the rest is counted. */
const namedEvidence = 3;

interface FollowsProps {
  job: Job;
  /** The job the assessment speaks of: its evidence points into this one. */
  judged: Job;
  assessment: Assessment;
  units: UnitChoice;
  /** The job is handed over: nothing is recorded on it any more. */
  closed: boolean;
  onLamp: () => void;
  onWeather: () => void;
}

/** What follows from all that was seen, in plain words, with how sure and why. */
export function Follows({ job, judged, assessment, units, closed, onLamp, onWeather }: FollowsProps) {
  const { lamp } = ledgerOf(job);
  const findings = toRead(assessment.findings);
  const { tomorrow } = assessment.lamp;
  return (
    <section className={styles.follows} aria-labelledby="follows">
      <h2 id="follows" tabIndex={-1}>
        What follows
      </h2>
      <div className={styles.lamp}>
        <span>{lamp ? `Lamp ${lampWords[lamp.seen.state]}` : 'Lamp not looked at'}</span>
        <Button disabled={closed} onClick={onLamp}>
          Lamp
        </Button>
      </div>
      <div className={styles.lamp}>
        <span>
          {tomorrow
            ? tomorrow.willLight
              ? 'As it stands, the lamp lights tonight'
              : 'The lamp stays out tonight'
            : 'Tonight is not known yet'}
        </span>
        <Button disabled={closed} onClick={onWeather}>
          Weather
        </Button>
      </div>
      <div aria-live="polite">
        {findings.length === 0 && (
          <p className={styles.empty}>Nothing can be said yet. Take the next move.</p>
        )}
        <ul className={styles.follows}>
          {findings.map(({ code, wheels, probability, evidence, action }) => (
            <li key={code} className={`${styles.finding} ${isCalm(code) ? styles.calm : ''}`}>
              <div className={styles.title}>
                <b>{titleOf({ code, wheels })}</b>
                <span className={styles.sure}>
                  {sureness(probability)}, {percent(probability)}
                </span>
              </div>
              <ul>
                {evidence.slice(0, namedEvidence).map(({ observation }) => {
                  const seen = judged.observations[observation];
                  return seen && <li key={observation}>{describe(seen, units)}</li>;
                })}
                {evidence.length > namedEvidence && (
                  <li>and {evidence.length - namedEvidence} more readings</li>
                )}
              </ul>
              <p>{action}</p>
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}
