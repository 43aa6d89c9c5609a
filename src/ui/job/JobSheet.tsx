import { memo, useEffect, useState } from 'react';
import { notesOf } from '../../core/job/header';
import { writeVerdict, registryWrites } from '../../core/job/car-write';
import { Button } from '../kit/Button';
import { Later, part } from '../kit/Later';
import { StillComing } from '../kit/StillComing';
import { Foot } from './Foot';
import { findingKey } from '../../core/catalogue/finding';
import { Follows } from './follows/Follows';
import { Head } from './Head';
import { Headline } from './Headline';
import styles from './JobSheet.module.css';
import { cellsThatSpeak } from './ledger/evidence-cells';
import { carCodesOf } from '../../core/visit/column';
import { Ledger } from './ledger/Ledger';
import { Stations } from './Stations';
import { useLeftTellings } from './use-left-tellings';
import { useMoves } from './use-moves';
import { useSheet, type SheetProps } from './use-sheet';
import { useShortcuts } from './use-shortcuts';

/** What answers are held against, and a first use of it: the next news of the job is shown at once then. */
const prepareForNews = (view: SheetProps['initial']): Promise<unknown> =>
  import('../../contract')
    .then(({ contracts }) => contracts.job.answer.safeParse(view))
    .catch(() => undefined);

const dialogs = () => import('./dialogs');
const OpenDialog = part(() => dialogs().then((found) => found.OpenDialog));
const notices = () => import('./notices');
/** Only a job that is closed, or follows another, says so. */
const Closed = part(() => notices().then((found) => found.Closed));
/** Most IDs are of one car. Comes after the sheet, below all else: nothing moves under a thumb. */
const MetElsewhere = part(() => notices().then((found) => found.MetElsewhere));

/** The sheet itself comes first. */
const contractAfterMs = 300;
const fetchAfterMs = 1500;

/**
 * The job, on one sheet: head, stations, ledger, what follows, and the next move at the foot. Wrapped, the server knows it
 * for a component by sight; else it is rendered once more, to see whether it is one.
 */
export const JobSheet = memo(function JobSheet(props: SheetProps) {
  const { initial } = props;
  const sheet = useSheet(props);
  const { job, judged, shown, columns, units, closed, opened, open } = sheet;
  const { take, visitStation } = useMoves(sheet);
  const [isSettled, setSettled] = useState(false);
  const [shownFinding, setShownFinding] = useState<string>();
  const speaks = cellsThatSpeak(
    judged.job,
    shown.findings.find((finding) => findingKey(finding) === shownFinding),
  );
  const lastWrite = registryWrites(job).at(-1);
  useShortcuts(sheet, take);
  useLeftTellings(props.person);
  useEffect(() => {
    const soon = setTimeout(() => void prepareForNews(initial), contractAfterMs);
    const timer = setTimeout(() => {
      void dialogs()
        .then(({ fetchDialogs }) => fetchDialogs())
        .catch(() => undefined);
      setSettled(true);
    }, fetchAfterMs);
    return () => {
      clearTimeout(soon);
      clearTimeout(timer);
    };
  }, [initial]);

  return (
    <main className={styles.sheet}>
      <Head sheet={sheet} />
      <div className={styles.notices}>
        {(closed || notesOf(job).followUpOf || notesOf(job).plannedSet) && (
          <Later>
            <Closed sheet={sheet} />
          </Later>
        )}
      </div>
      <Stations sheet={sheet} onVisit={visitStation} />
      <Headline sheet={sheet} />
      <fieldset className={styles.ledger} aria-label="Ledger" disabled={closed}>
        <Ledger
          columns={columns}
          carCodes={carCodesOf(job)}
          findings={shown.findings}
          speaks={speaks}
          units={units}
          chosen={sheet.chosen}
          onGauge={(wheel) => open({ dialog: 'gauge', wheel })}
          onPlacard={() => open({ dialog: 'placard' })}
          onScan={(wheel) => open({ dialog: 'scan', wheel })}
        />
      </fieldset>
      <aside className={styles.side}>
        <Follows sheet={sheet} shown={shownFinding} onShow={setShownFinding} />
        {closed && sheet.mayConfirm && (
          <Button onClick={() => open({ dialog: 'turned-out' })}>What it was</Button>
        )}
        {lastWrite && (
          <Button onClick={() => open({ dialog: 'write', write: lastWrite.key })}>
            Last write: {writeVerdict(lastWrite)}
          </Button>
        )}
        {isSettled && (
          <Later>
            <MetElsewhere view={sheet.view} />
          </Later>
        )}
      </aside>
      <Foot sheet={sheet} onTake={() => take(sheet.move)} />
      <Later fallback={opened && <StillComing onClose={sheet.close} />}>
        {opened && <OpenDialog sheet={sheet} opened={opened} />}
      </Later>
    </main>
  );
});
