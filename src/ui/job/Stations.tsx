import { Check } from 'lucide-react';
import { isPassed, stationOf, stations, type Station } from '../../core/visit';
import { stationNeedsTechnician, technicianOnly } from '../../core/visit/rights';
import { stationNames } from '../../core/visit/words';
import styles from './JobSheet.module.css';
import type { Sheet } from './use-sheet';

/** The stations of the visit: which is passed, which comes next, each to be reached at any time. */
export function Stations({
  sheet: { job, proof, move, closed, mayRecord },
  onVisit,
}: {
  sheet: Sheet;
  onVisit: (station: Station) => void;
}) {
  const present = stationOf(move);
  return (
    <nav className={styles.stations} aria-label="Stations of the visit">
      {stations.map((station) => (
        <button
          key={station}
          type="button"
          ref={station === present ? intoView : undefined}
          aria-current={station === present ? 'step' : undefined}
          onClick={() => onVisit(station)}
          disabled={closed || (!mayRecord && stationNeedsTechnician(station))}
          title={!mayRecord && stationNeedsTechnician(station) ? technicianOnly : undefined}
        >
          {isPassed(station, job, proof) && <Check aria-label="passed" />}
          {stationNames[station]}
        </button>
      ))}
    </nav>
  );
}

/** On a phone the strip of stations is wider than the screen: the present one is brought into sight. */
const intoView = (station: HTMLButtonElement | null) =>
  void station?.parentElement?.scrollTo({ left: station.offsetLeft - station.parentElement.clientWidth / 3 });
