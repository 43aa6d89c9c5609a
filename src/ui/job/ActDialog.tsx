import type { Finding } from '../../core/assessment';
import { cautionForWork } from '../../core/cautions';
import { titleOf, recordOf } from '../../core/finding';
import type { Job } from '../../core/job';
import { describe, percent, sureness } from '../../core/job/words';
import type { UnitChoice } from '../../core/units';
import type { Position } from '../../core/wheel';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Notice } from '../kit/Notice';
import styles from './SheetForms.module.css';

interface ActDialogProps {
  finding: Finding;
  job: Job;
  units: UnitChoice;
  onGauge: (wheel: Position) => void;
  onScan: (wheel: Position) => void;
  onLamp: () => void;
  /** The reference of an indirect system was stored. */
  onStored: () => void;
  onHandOver: () => void;
  /** A leak was mended at this wheel. */
  onRepaired: (wheel: Position) => void;
  onLosses: (wheel: Position) => void;
  onClose: () => void;
}

/** Work for hands: what to do about a finding, why, and how to show that it is done. */
export function ActDialog(props: ActDialogProps) {
  const { finding, job, units } = props;
  const [wheel] = finding.wheels;
  const caution = cautionForWork(finding.code);
  return (
    <Dialog title={titleOf(finding)} onClose={props.onClose}>
      <p>
        <b>{recordOf(finding.code).action}</b>
      </p>
      <div>
        <p>
          {sureness(finding.probability)}, {percent(finding.probability)}, because:
        </p>
        <ul className={styles.checks}>
          {speakingFor(finding).map(({ observation }) => {
            const seen = job.observations[observation];
            return seen && <li key={observation}>{describe(seen, units)}</li>;
          })}
        </ul>
      </div>
      {caution && <Notice tone="note">{caution}</Notice>}
      <p>When it is done, take the reading again: the finding goes by itself once it no longer holds.</p>
      <div className={styles.actions}>
        {finding.code === 'baseline-not-set' && (
          <Button weight="main" onClick={props.onStored}>
            The reference is stored
          </Button>
        )}
        {wheel && finding.code.startsWith('sensor') && (
          <Button weight="main" onClick={() => props.onScan(wheel)}>
            Wake {wheel} again
          </Button>
        )}
        {finding.code === 'tire-leaking' &&
          finding.wheels.map((leaking) => (
            <Button key={leaking} weight="main" onClick={() => props.onRepaired(leaking)}>
              {leaking} is repaired
            </Button>
          ))}
        {wheel && finding.code === 'tire-leaking' && (
          <Button onClick={() => props.onLosses(wheel)}>Show the losses</Button>
        )}
        {wheel && <Button onClick={() => props.onGauge(wheel)}>Gauge {wheel} again</Button>}
        <Button onClick={props.onLamp}>Look at the lamp</Button>
        <Button onClick={props.onHandOver}>Leave it as it is</Button>
      </div>
    </Dialog>
  );
}

/** So many readings are named: those that speak for the finding, the strongest first. */
const mostNamed = 6;
const speakingFor = ({ evidence }: Finding) =>
  evidence
    .filter(({ decibans }) => decibans > 0)
    .sort((a, b) => b.decibans - a.decibans)
    .slice(0, mostNamed);
