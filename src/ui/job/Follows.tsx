import type { Assessment, NextTest } from '../../core/assessment';
import type { Job } from '../../core/job';
import { lampWords } from '../../core/job/words';
import { ledgerOf } from '../../core/ledger';
import { latchesOf } from '../../core/lamp';
import { formatDifference, pressure, type UnitChoice } from '../../core/units';
import { fittedOn, placardKPa, placardSize } from '../../core/placard';
import { compareSizes, parseTireSize } from '../../core/tire-size';
import { axleOf } from '../../core/wheel';
import { notesOf } from '../../core/visit/notes';
import { Button } from '../kit/Button';
import { Findings } from './Findings';
import { fitWords } from './fit-words';
import { lampFigures } from './lamp-figures';
import styles from './Follows.module.css';

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
  onTonight: () => void;
  onLosses: () => void;
  onTires: () => void;
  onWhatIf: () => void;
  /** Checks that are done by hand and written down. */
  onChecks: () => void;
  check: NextTest | undefined;
  /** The finding whose reasons are shown. */
  shown: string | undefined;
  onShow: (key: string | undefined) => void;
}

/** What follows from all that was seen, in plain words, with how sure and why. */
export function Follows(props: FollowsProps) {
  const { job, judged, assessment, units, closed, onLamp, onWeather, onTonight, onLosses, onTires } = props;
  const { check, onChecks, onWhatIf, shown, onShow } = props;
  const ledger = ledgerOf(job);
  const { lamp } = ledger;
  const figures = lampFigures(job, units);
  const latches = latchesOf(job, ledger, assessment.targets);
  const unfit = unfitTires(job);
  const bench = notesOf(job).bench ?? [];
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
        <Button onClick={onTonight}>Tonight</Button>
      </div>
      <div className={styles.tools}>
        <Button disabled={closed} onClick={onWeather}>
          Weather
        </Button>
        <Button onClick={onLosses}>Losses</Button>
        <Button disabled={closed} onClick={onTires}>
          Tires
        </Button>
      </div>
      <div aria-live="polite" className={styles.follows}>
        {figures && (
          <p className={styles.basis}>
            Lamp at {figures}
            {latches.length > 0 &&
              `. Held on by ${latches.map(({ wheel, outWithKPa }) => `${wheel} (${formatDifference(pressure, outWithKPa, units.pressure)} puts it out)`).join(', ')}`}
          </p>
        )}
        {unfit.map((words) => (
          <p key={words} className={styles.unfit}>
            {words}
          </p>
        ))}
        <Findings {...{ judged, assessment, check, units, shown, onShow }} />
        <div className={styles.more}>
          <Button disabled={closed} onClick={onChecks}>
            Other checks
          </Button>
          <Button onClick={onWhatIf}>What if</Button>
        </div>
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

/** The axles whose tires are not what the placard asks for, each in a few words. */
function unfitTires(job: Job): string[] {
  return (['LF', 'RR', 'SP'] as const).flatMap((wheel) => {
    const fitted = parseTireSize(fittedOn(job, wheel)?.size ?? '');
    const asked = parseTireSize(placardSize(job, wheel) ?? '');
    if (!fitted.ok || !asked.ok) return [];
    const { verdict, good } = fitWords(compareSizes(asked.value, fitted.value, placardKPa(job, wheel)));
    return good ? [] : [`${fitted.value.text} at the ${axleOf(wheel)}: ${verdict}`];
  });
}
