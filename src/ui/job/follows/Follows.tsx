import type { Seen } from '../../../core/job';
import { lampWords } from '../../../core/job/words';
import { ledgerOf } from '../../../core/job/ledger';
import { latchesOf } from '../../../core/car/lamp';
import { formatDifference, pressure } from '../../../core/measure/units';
import { notesOf } from '../../../core/job/header';
import { Button } from '../../kit/Button';
import { Later, part } from '../../kit/Later';
import { Findings } from './Findings';
import { lampFigures } from '../gauge/lamp-figures';
import styles from './Follows.module.css';
import type { Sheet } from '../use-sheet';

/** Most jobs have neither: they are fetched where there is something to show. */
const UnfitTires = part(() => import('./UnfitTires').then((found) => found.UnfitTires));
const PutOffs = part(() => import('../put-off/PutOffs').then((found) => found.PutOffs));

/** What follows from all that was seen, in plain words, with how sure and why: the verdict first, tools to look closer below. `shown`: the finding whose reasons are. */
export function Follows({
  sheet,
  shown,
  onShow,
}: {
  sheet: Sheet;
  shown: string | undefined;
  onShow: (key: string | undefined) => void;
}) {
  const { job, units, closed, check, open, move } = sheet;
  const { job: judged, assessment, reasons, weighed } = sheet.judged;
  const ledger = ledgerOf(job);
  const { lamp } = ledger;
  const figures = lampFigures(job, units);
  const latches = latchesOf(job, ledger, assessment.targets);
  const bench = notesOf(job).bench ?? [];
  const { tomorrow } = assessment.lamp;
  return (
    <section className={styles.follows} aria-labelledby="follows">
      <h2 id="follows" tabIndex={-1}>
        Findings
      </h2>
      <div aria-live="polite" className={styles.follows}>
        {job.fitted && (
          <Later>
            <UnfitTires job={job} />
          </Later>
        )}
        <Findings
          {...{ judged, assessment, reasons, weighed, check, move, units, shown, onShow }}
          inSight={sheet.shown}
        />
      </div>
      <div className={styles.lamp}>
        <span>{lamp ? `Lamp ${lampWords[lamp.seen.state]}` : 'Lamp not looked at'}</span>
        <Button disabled={closed} onClick={() => open({ dialog: 'lamp' })}>
          Lamp
        </Button>
      </div>
      <div className={styles.lamp}>
        <span>
          {tomorrow ? tonightWords(tomorrow.willLight, lamp?.seen.state) : 'Tonight is not known yet'}
        </span>
        <Button onClick={() => open({ dialog: 'tonight' })}>Tonight</Button>
      </div>
      {figures && (
        <p className={styles.basis}>
          Lamp at {figures}
          {latches.length > 0 &&
            `. Held on by ${latches.map(({ wheel, outWithKPa }) => `${wheel} (${formatDifference(pressure, outWithKPa, units)} puts it out)`).join(', ')}`}
        </p>
      )}
      {job.putOff && job.putOff.length > 0 && (
        <Later>
          <PutOffs sheet={sheet} />
        </Later>
      )}
      <div className={styles.tools}>
        <Button disabled={closed} onClick={() => open({ dialog: 'weather' })}>
          Weather
        </Button>
        <Button onClick={() => open({ dialog: 'losses' })}>Losses</Button>
        <Button disabled={closed} onClick={() => open({ dialog: 'tires' })}>
          Tires
        </Button>
        <Button onClick={() => open({ dialog: 'relearn' })}>Relearn</Button>
        {job.vehicle.tpms.kind === 'direct' && (
          <>
            <Button onClick={() => open({ dialog: 'replace' })}>Replace</Button>
            <Button onClick={() => open({ dialog: 'program' })}>Program</Button>
            <Button onClick={() => open({ dialog: 'service' })}>Service</Button>
          </>
        )}
        <Button disabled={closed} onClick={() => open({ dialog: 'checks' })}>
          Other checks
        </Button>
        <Button onClick={() => open({ dialog: 'what-if' })}>What if</Button>
      </div>
      {bench.length > 0 && (
        <ul className={styles.bench} aria-label="From the bench">
          {bench.map(({ text, link, at }) => (
            <li key={at}>
              <a href={link}>{text}</a>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

/** What the tires do to the lamp by the coldest hour. A lamp that is lit, or flashes, is not said to stay out. */
function tonightWords(willLight: boolean, state: Seen<'lamp'>['state'] | undefined): string {
  if (willLight) return 'As it stands, the lamp lights tonight';
  return state === 'off' ? 'The lamp stays out tonight' : 'No tire will light the lamp tonight';
}
