import { ChevronRight } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { StoredProcedure } from '../../../contract';
import { needOf, waysFor, type Need, type Way } from '../../../core/relearn/choice';
import { needTitle, needWords, notReadWords, wayWords } from '../../../core/relearn/choice/words';
import { methodWords } from '../../../core/relearn/procedure/words';
import { ask } from '../../api';
import { Dialog } from '../../kit/Dialog';
import { Notice } from '../../kit/Notice';
import { ProcedureBody } from '../../parts/ProcedureBody';
import type { Sheet } from '../use-sheet';
import styles from './RelearnDialog.module.css';

/** Whether the car must be taught, and how: the ways open to it, the best first, each with its steps. */
export function RelearnDialog({ sheet: { view, job, close } }: { sheet: Sheet }) {
  const [library, setLibrary] = useState<StoredProcedure[]>();
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    void ask('procedures').then((asked) =>
      asked.ok ? setLibrary(asked.value) : setProblem(asked.problem.message),
    );
  }, []);
  const need = needOf(job);
  const { tool, lead } = view.devices;
  const ways =
    library &&
    waysFor(
      library.map(({ procedure }) => procedure),
      job,
      { tool, lead, road: true },
    );
  return (
    <Dialog title="Relearn" wide onClose={close}>
      <div className={styles.relearn}>
        <Needed need={need} isDirect={job.vehicle.tpms.kind === 'direct'} />
        {problem && <Notice tone="wrong">{problem}</Notice>}
        {!ways && !problem && <p>Looking the procedures up…</p>}
        {ways?.length === 0 && (
          <p>
            No procedure for this kind of vehicle is on file. <a href="/procedures">Procedures</a> holds what
            is; follow the vehicle maker’s own.
          </p>
        )}
        {ways?.map((way, at) => (
          <OneWay key={way.procedure.name} way={way} open={at === 0 && need.action !== 'none'} />
        ))}
      </div>
    </Dialog>
  );
}

function Needed({ need, isDirect }: { need: Need; isDirect: boolean }) {
  return (
    <div role="status">
      <h3>{needTitle(need)}</h3>
      <p>{needWords(need)}</p>
      {isDirect && !need.measured && <p className={styles.soft}>{notReadWords}</p>}
    </div>
  );
}

function OneWay({ way, open }: { way: Way; open: boolean }) {
  const { procedure } = way;
  const hindrances = wayWords(way);
  return (
    <details className={styles.way} open={open}>
      <summary>
        <ChevronRight className={styles.sign} aria-hidden="true" />
        <b>{procedure.title}</b>
        <span>
          {methodWords[procedure.method]}
          {procedure.minutes !== undefined && `, about ${procedure.minutes} min`}
        </span>
        {hindrances.length > 0 && <span className={styles.hindered}>{hindrances.join('. ')}.</span>}
        {!procedure.checkedAt && <span className={styles.soft}>Nobody has checked it on a car.</span>}
      </summary>
      <ProcedureBody procedure={procedure} />
    </details>
  );
}
