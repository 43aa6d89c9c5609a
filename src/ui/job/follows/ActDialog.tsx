import type { Finding } from '../../../core/judgement/assessment';
import { cautionForWork } from '../../../core/visit/cautions';
import { findingKey, titleOf, recordOf } from '../../../core/catalogue/finding';
import { sureness } from '../../../core/judgement/assessment/words';
import { describe } from '../../../core/visit/observation';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { Notice } from '../../kit/Notice';
import styles from '../../kit/Forms.module.css';
import { weighing } from './Findings';
import type { Sheet } from '../use-sheet';

/** Work for hands: what to do about a finding, why, and how to show that it is done. `asked`: as it was when this was opened. */
export function ActDialog({ sheet, finding: asked }: { sheet: Sheet; finding: Finding }) {
  const { judged, shown, units, repaired, open, close } = sheet;
  const finding = shown.findings.find((other) => findingKey(other) === findingKey(asked)) ?? asked;
  const speaking = speakingFor(finding);
  const [wheel] = finding.wheels;
  const { part } = recordOf(finding.code);
  const caution = cautionForWork(finding.code);
  return (
    <Dialog title={titleOf(finding)} onClose={close}>
      <p>
        <b>{finding.action}</b>
      </p>
      <div>
        <p>{sureness(finding.probability)}, because:</p>
        {speaking.length === 0 && !judged.weighed && <p>{weighing}</p>}
        <ul className={styles.checks}>
          {speaking.map(({ observation }) => {
            const seen = judged.job.observations[observation];
            return seen && <li key={observation}>{describe(seen, units)}</li>;
          })}
        </ul>
      </div>
      {caution && <Notice tone="note">{caution}</Notice>}
      <p>When it is done, take the reading again: the finding goes by itself once it no longer holds.</p>
      <div className={styles.actions}>
        {part === 'reference' && (
          <Button weight="main" onClick={() => open({ dialog: 'reset' })}>
            Reset the system
          </Button>
        )}
        {wheel && part === 'sensor' && (
          <>
            <Button weight="main" onClick={() => open({ dialog: 'replace' })}>
              Replace one or all
            </Button>
            <Button onClick={() => open({ dialog: 'scan', wheel })}>Wake {wheel} again</Button>
          </>
        )}
        {part === 'tire' &&
          finding.wheels.map((leaking) => (
            <Button key={leaking} weight="main" onClick={() => repaired(leaking)}>
              {leaking} is repaired
            </Button>
          ))}
        {wheel && part === 'tire' && (
          <Button onClick={() => open({ dialog: 'losses', wheel })}>Show the losses</Button>
        )}
        {wheel && <Button onClick={() => open({ dialog: 'gauge', wheel })}>Gauge {wheel} again</Button>}
        <Button onClick={() => open({ dialog: 'lamp' })}>Look at the lamp</Button>
        <Button onClick={() => open({ dialog: 'hand-over' })}>Leave it as it is</Button>
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
