import { useEffect, useState, type ReactNode } from 'react';
import type { YardLine } from '../../contract/views';
import { ask } from '../api';
import { useDeeds } from '../deeds';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import styles from './Bench.module.css';

interface ToolProps {
  title: string;
  /** The fields. */
  children: ReactNode;
  /** What was worked out, as one sentence that stands without the page; nothing while something is missing. */
  sentence: string | undefined;
  /** More than the sentence: a table, a chart. */
  more?: ReactNode;
  formula: ReactNode;
  source: string;
  link: string;
}

/** One tool of the bench: fields, the answer, how it was worked out and by what source, and ways to take it along. */
export function Tool({ title, children, sentence, more, formula, source, link }: ToolProps) {
  const [copied, setCopied] = useState<string>();
  const [byHand, setByHand] = useState<string>();
  const [taking, setTaking] = useState(false);
  const copy = async (text: string, said: string) => {
    try {
      await navigator.clipboard.writeText(text);
      setCopied(said);
    } catch {
      // Browsers keep the clipboard from pages that came over plain HTTP.
      setByHand(text);
    }
  };
  return (
    <section className={styles.tool} aria-labelledby="tool">
      <h2 id="tool">{title}</h2>
      <div className={styles.fields}>{children}</div>
      <p className={styles.answer} role="status">
        {sentence ?? 'Fill in the fields: the answer stands here.'}
      </p>
      {more}
      <div className={styles.actions}>
        <Button disabled={!sentence} onClick={() => void copy(sentence ?? '', 'The answer is copied.')}>
          Copy the answer
        </Button>
        <Button onClick={() => void copy(window.location.origin + link, 'The link is copied.')}>
          Copy a link
        </Button>
        <Button disabled={!sentence} onClick={() => setTaking(true)}>
          Take it into a job
        </Button>
        <span role="status">{copied}</span>
      </div>
      <dl className={styles.why}>
        <dt>How</dt>
        <dd>{formula}</dd>
        <dt>Source</dt>
        <dd>{source}</dd>
      </dl>
      {byHand !== undefined && (
        <Dialog title="Copy by hand" onClose={() => setByHand(undefined)}>
          <Field
            label="This browser lets no page copy here"
            value={byHand}
            readOnly
            onValue={() => undefined}
          />
        </Dialog>
      )}
      {taking && sentence && <TakeAlong sentence={sentence} link={link} onClose={() => setTaking(false)} />}
    </section>
  );
}

/** Choose an open job; the sentence stands on its sheet from then on, with the way back here. */
function TakeAlong({ sentence, link, onClose }: { sentence: string; link: string; onClose: () => void }) {
  const [lines, setLines] = useState<YardLine[]>();
  const { once, problem, setProblem } = useDeeds();
  const [taken, setTaken] = useState<YardLine>();
  useEffect(() => {
    void ask('yard').then((found) =>
      found.ok
        ? setLines(found.value.filter(({ state }) => state === 'open'))
        : setProblem(() => found.problem),
    );
  }, [setProblem]);
  const take = async (line: YardLine) => {
    const kept = await once(line.id, (key) =>
      ask('note', { id: line.id, body: { key, text: sentence, link } }),
    );
    if (kept?.ok) setTaken(line);
  };
  return (
    <Dialog title="Take it into a job" onClose={onClose}>
      <p className={styles.answer}>{sentence}</p>
      {problem && <Notice tone="wrong">{problem.message}</Notice>}
      {taken ? (
        <Notice tone="right">
          It stands on job {taken.number}, {taken.label}. <a href={`/jobs/${taken.id}`}>Open the job</a>
        </Notice>
      ) : (
        <ul className={styles.jobs}>
          {(lines ?? []).map((line) => (
            <li key={line.id}>
              <Button onClick={() => void take(line)}>
                {line.plate || `Job ${line.number}`}, {line.label}
              </Button>
            </li>
          ))}
          {lines?.length === 0 && <li>No job is open. Book the car in first.</li>}
          {!lines && !problem && <li>Looking into the Yard…</li>}
        </ul>
      )}
    </Dialog>
  );
}
