import { useState } from 'react';
import type { Job } from '../../../core/job';
import { lossOf, type Loss } from '../../../core/tire/leak';
import { seepagePerMonthKPa } from '../../../core/tire/leak/seepage';
import { thresholdsFor } from '../../../core/car/lamp';
import { wheelsOf } from '../../../core/job/placard';
import { dayOfMonth } from '../../../core/measure/calendar';
import { daysAfter } from '../../../core/measure/calendar/spans';
import { format, pressure, temperature, type Notation } from '../../../core/measure/units';
import type { Position } from '../../../core/names/wheel';
import { Button } from '../../kit/Button';
import { Dialog } from '../../kit/Dialog';
import { pressureAxis, shownPressure } from '../../kit/axes';
import { LazyChart } from '../../kit/LazyChart';
import { Notice } from '../../kit/Notice';
import gaugeStyles from './GaugeDialog.module.css';
import styles from '../../kit/Forms.module.css';
import { lampSoonWords, lossVerdictWords, lossWords, oneReadingWords } from './words';

/** What each wheel lost over its visits, apart from temperature and from what seeps through rubber. */
export function LossesDialog({
  job,
  first,
  units,
  onRepaired,
  onClose,
}: {
  job: Job;
  first: Position | undefined;
  units: Notation;
  /** A leak was mended; missing on a closed job. */
  onRepaired: ((wheel: Position) => void) | undefined;
  onClose: () => void;
}) {
  const losses = wheelsOf(job).map((wheel) => lossOf(job, wheel));
  const leaking = losses.find(({ verdict }) => verdict === 'leaks')?.wheel;
  const [wheel, setWheel] = useState<Position>(first ?? leaking ?? 'LF');
  const loss = losses.find((found) => found.wheel === wheel);
  return (
    <Dialog title="Losses" onClose={onClose} wide>
      <div className={styles.form}>
        <div className={gaugeStyles.wheels} role="group" aria-label="Wheel">
          {losses.map((found) => (
            <button
              key={found.wheel}
              type="button"
              className={gaugeStyles.wheel}
              aria-pressed={found.wheel === wheel}
              onClick={() => setWheel(found.wheel)}
            >
              <b>{found.wheel}</b>
              <span>{found.line ? lossVerdictWords[found.verdict] : '–'}</span>
            </button>
          ))}
        </div>
        {loss && <LossOfWheel job={job} loss={loss} units={units} />}
        {loss?.verdict === 'leaks' && onRepaired && (
          <div>
            <Button onClick={() => onRepaired(loss.wheel)}>{loss.wheel} is repaired</Button>
          </div>
        )}
      </div>
    </Dialog>
  );
}

function LossOfWheel({ job, loss, units }: { job: Job; loss: Loss; units: Notation }) {
  const { wheel, levels, line, perDayKPa, referenceC } = loss;
  const [oldest] = levels;
  if (!line || !perDayKPa || !oldest) {
    return <Notice tone="note">{oneReadingWords(loss)}</Notice>;
  }
  const { lowOnKPa } = thresholdsFor(job, wheel);
  const last = levels.at(-1)?.days ?? 0;
  const until = Math.max(last * 1.4, 1);
  const date = (days: number) => dayOfMonth(daysAfter(oldest.at, days), units);
  const kPa = (value: number) => format(pressure, value, units);
  const y = shownPressure(units);
  return (
    <>
      <p className={styles.lead}>{lossWords(loss, units)}</p>
      {loss.verdict === 'not-known' && loss.tellsAfterDays !== undefined && (
        <p>
          Read it again {Math.ceil(loss.tellsAfterDays)} days after the first reading or later: that tells a
          slow leak.
        </p>
      )}
      {loss.verdict === 'leaks' && loss.lampInDays && <p>{lampSoonWords(loss.lampInDays)}</p>}
      <LazyChart
        title={`${wheel} at ${format(temperature, referenceC, units)}, ${units.pressure}`}
        x={{
          label: 'date',
          format: date,
          tick: date,
          ticks: [0, 0.25, 0.5, 0.75, 1].map((part) => part * until),
        }}
        y={pressureAxis(units)}
        series={[
          {
            name: 'readings',
            look: 'points',
            points: levels.map(({ days, kPa: level }) => ({ x: days, y: y(level) })),
          },
          {
            name: 'line through them',
            look: 'line',
            tone: 'clay',
            points: [0, until].map((x) => ({ x, y: y(line.at(x)) })),
          },
          {
            name: 'seepage alone',
            look: 'dots',
            tone: 'agave',
            points: [0, until].map((x) => ({ x, y: y(line.at(0) - (seepagePerMonthKPa.most / 30) * x) })),
          },
        ]}
        levels={
          lowOnKPa === undefined ? [] : [{ y: y(lowOnKPa), label: `lamp on, ${kPa(lowOnKPa)}`, tone: 'clay' }]
        }
        table={{
          head: ['Date', 'read', 'tire at', `at ${format(temperature, referenceC, units)}`],
          rows: levels.map(({ days, readKPa, readC, kPa: brought }) => [
            date(days),
            kPa(readKPa),
            format(temperature, readC, units),
            kPa(brought),
          ]),
        }}
      />
    </>
  );
}
