import { Suspense, useEffect, useState } from 'react';
import { writeVerdict } from '../../core/proof';
import { Button } from '../kit/Button';
import { fetchDialogs, OpenDialog } from './dialogs';
import { Foot } from './Foot';
import { findingKey } from '../../core/finding';
import { Follows } from './follows/Follows';
import { Head } from './Head';
import styles from './JobSheet.module.css';
import { cellsThatSpeak } from './ledger/evidence-cells';
import { Ledger } from './ledger/Ledger';
import { Stations } from './Stations';
import { useMoves } from './use-moves';
import { registryWrites, useSheet, type SheetProps } from './use-sheet';
import { useShortcuts } from './use-shortcuts';

/** The sheet itself comes first. */
const fetchAfterMs = 1500;

/** The job, on one sheet: head, stations, ledger, what follows, and the next move at the foot. */
export function JobSheet(props: SheetProps) {
  const sheet = useSheet(props);
  const { job, judged, findings, columns, units, closed, opened, open } = sheet;
  const { take, visitStation } = useMoves(sheet);
  const [shownFinding, setShownFinding] = useState<string>();
  const speaks = cellsThatSpeak(
    judged.job,
    findings.find((finding) => findingKey(finding) === shownFinding),
  );
  const lastWrite = registryWrites(job).at(-1);
  useShortcuts(sheet, take);
  useEffect(() => {
    const timer = setTimeout(fetchDialogs, fetchAfterMs);
    return () => clearTimeout(timer);
  }, []);

  return (
    <main className={styles.sheet}>
      <Head sheet={sheet} />
      <Stations sheet={sheet} onVisit={visitStation} />
      <fieldset className={styles.ledger} aria-label="Ledger" disabled={closed}>
        <Ledger
          columns={columns}
          findings={findings}
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
      </aside>
      <Foot sheet={sheet} onTake={() => take(sheet.move)} />
      <Suspense fallback={null}>{opened && <OpenDialog sheet={sheet} opened={opened} />}</Suspense>
    </main>
  );
}
