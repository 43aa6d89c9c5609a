import { ChevronRight } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { StoredProcedure } from '../../../contract';
import { needOf, waysFor, type Need, type Way } from '../../../core/visit/teaching/choice';
import { needTitle, needWords, notMeasuredWords, wayWords } from '../../../core/visit/teaching/choice/words';
import type { RelearnMethod } from '../../../core/relearn/method';
import { methodWords } from '../../../core/relearn/procedure/words';
import type { Job } from '../../../core/job';
import { ledgerOf } from '../../../core/job/ledger';
import { hasEnded, replay } from '../../../core/relearn/run';
import { stateWords } from '../../../core/relearn/run/words';
import { ask } from '../../api';
import { shopTime } from '../../clock';
import { Button } from '../../kit/Button';
import { useStart } from '../../run/use-start';
import { Dialog } from '../../kit/Dialog';
import { Choice } from '../../kit/Field';
import forms from '../../kit/Forms.module.css';
import { Notice } from '../../kit/Notice';
import { optionsFrom } from '../../kit/options';
import { ProcedureBody } from '../../parts/ProcedureBody';
import type { Sheet } from '../use-sheet';
import styles from './RelearnDialog.module.css';

/** Whether the car must be taught, and how: the ways open to it, the best first, each with its steps. */
export function RelearnDialog({ sheet: { view, job, closed, record, close } }: { sheet: Sheet }) {
  const [library, setLibrary] = useState<StoredProcedure[]>();
  const [preferred, setPreferred] = useState<RelearnMethod[]>([]);
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    void ask('shop').then((asked) => asked.ok && setPreferred(asked.value.preferredMethods));
    void ask('procedures').then((asked) =>
      asked.ok ? setLibrary(asked.value) : setProblem(asked.problem.message),
    );
  }, []);
  const { starting, problem: refused, start } = useStart(view.id);
  const need = needOf(job);
  const { tool, lead } = view.devices;
  const ways =
    library &&
    waysFor(
      library.map(({ procedure }) => procedure),
      job,
      { tool, lead, road: true },
      preferred,
    );
  return (
    <Dialog title="Relearn" wide onClose={close}>
      <div className={styles.relearn}>
        <Needed need={need} job={job} />
        <Going job={job} />
        {refused && <Notice tone="wrong">{refused}</Notice>}
        {problem && <Notice tone="wrong">{problem}</Notice>}
        {!ways && !problem && <p>Looking the procedures up…</p>}
        {ways?.length === 0 && (
          <p>
            No procedure for this kind of vehicle is on file. <a href="/procedures">Procedures</a> holds what
            is; follow the vehicle maker’s own.
          </p>
        )}
        {ways?.map((way, at) => (
          <OneWay
            key={way.procedure.name}
            way={way}
            open={at === 0 && need.action !== 'none'}
            starting={starting}
            onStart={closed ? undefined : () => start({ procedure: way.procedure.name })}
          />
        ))}
        {!closed && need.action !== 'none' && (
          <Elsewhere
            onDone={(method, outcome) => {
              record({ kind: 'relearn', at: shopTime(), method, outcome, source: 'hand' });
              close();
            }}
          />
        )}
      </div>
    </Dialog>
  );
}

/** A car that was taught by the maker's own procedure or with another tool: what it holds is still read or typed afterwards. */
function Elsewhere({
  onDone,
}: {
  onDone: (method: RelearnMethod, outcome: 'done' | 'failed' | 'waiting-for-drive') => void;
}) {
  const [method, setMethod] = useState<RelearnMethod>();
  return (
    <section className={styles.elsewhere}>
      <h3>Taught without a procedure from here</h3>
      <Choice label="How" options={optionsFrom(methodWords)} value={method} onValue={setMethod} />
      <div className={forms.actions}>
        <Button disabled={!method} onClick={() => method && onDone(method, 'done')}>
          It took it
        </Button>
        <Button disabled={!method} onClick={() => method && onDone(method, 'waiting-for-drive')}>
          It wants a drive first
        </Button>
        <Button disabled={!method} onClick={() => method && onDone(method, 'failed')}>
          It failed
        </Button>
      </div>
      <p className={styles.soft}>It proves nothing by itself: read or type afterwards what the car holds.</p>
    </section>
  );
}

/** Relearns of this visit: the one that goes on, and what became of others. */
function Going({ job }: { job: Job }) {
  const runs = (job.runs ?? []).map((record) => ({ record, run: replay(record.procedure, record.events) }));
  if (runs.length === 0) return null;
  return (
    <ul className={styles.runs}>
      {runs.map(({ record, run }) => (
        <li key={record.key}>
          <a href={`/runs/${record.key}`}>{record.procedure.title}</a>:{' '}
          {hasEnded(run) ? stateWords[run.state] : `begun by ${record.by ?? 'somebody'}, not ended`}
        </li>
      ))}
    </ul>
  );
}

function Needed({ need, job }: { need: Need; job: Job }) {
  return (
    <div role="status">
      <h3>{needTitle(need)}</h3>
      <p>{needWords(need)}</p>
      {job.vehicle.tpms.kind === 'direct' && !need.measured && (
        <p className={styles.soft}>{notMeasuredWords(ledgerOf(job))}</p>
      )}
    </div>
  );
}

function OneWay({
  way,
  open,
  starting,
  onStart,
}: {
  way: Way;
  open: boolean;
  starting: string | undefined;
  /** Missing on a job that is closed. */
  onStart: (() => void) | undefined;
}) {
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
      {onStart && (
        <Button weight={open ? 'main' : 'plain'} className={styles.start} busy={starting} onClick={onStart}>
          Start
        </Button>
      )}
      <ProcedureBody procedure={procedure} />
    </details>
  );
}
