import { useState } from 'react';
import type { Part } from '../../core/sensor/part';
import { stemWords, torqueWords } from '../../core/sensor/part/words';
import { ask } from '../api';
import { FilePick } from '../kit/FilePick';
import { Notice } from '../kit/Notice';
import styles from './Setup.module.css';

/** The catalogue of replacement sensors; a manager takes it in as a file. */
export function Catalogue({ initial, mayAdd }: { initial: Part[]; mayAdd: boolean }) {
  const [parts, setParts] = useState(initial);
  const [said, setSaid] = useState<{ tone: 'right' | 'wrong'; text: string }>();
  const take = async (document: unknown) => {
    const saved = await ask('saveParts', { file: Array.isArray(document) ? document : [document] });
    if (saved.ok) setParts(saved.value);
    const [issue] = saved.ok ? [] : (saved.problem.issues ?? []);
    setSaid(
      saved.ok
        ? { tone: 'right', text: 'Imported.' }
        : {
            tone: 'wrong',
            text: issue ? `${saved.problem.message} ${issue.path}: ${issue.message}` : saved.problem.message,
          },
    );
  };
  return (
    <section className={styles.group} aria-labelledby="parts">
      <h2 id="parts">Parts</h2>
      {parts.length === 0 && (
        <p>
          No part is on file. A catalogue is a JSON list of parts; sensors are then looked up by car and year.
        </p>
      )}
      <ul>
        {parts.map((part) => (
          <li key={part.name}>
            <b>{part.title}</b> <span className="figures">{part.name}</span>:{' '}
            {[
              part.kind === 'universal' ? 'to be programmed' : 'has its own ID',
              part.formats.map(({ family, frequencyMHz }) => `${family} ${frequencyMHz}`).join(' or '),
              yearsOf(part),
              stemWords[part.stem],
              ...torqueWords(part),
              part.kit && `kit ${part.kit}`,
            ]
              .filter(Boolean)
              .join(', ')}
          </li>
        ))}
      </ul>
      {said && <Notice tone={said.tone}>{said.text}</Notice>}
      {mayAdd && (
        <div>
          <FilePick
            label="Import a catalogue"
            onDocument={(document) => void take(document)}
            onProblem={(text) => setSaid({ tone: 'wrong', text })}
          />
        </div>
      )}
    </section>
  );
}

function yearsOf({ for: cars }: Part): string | undefined {
  if (!cars) return undefined;
  const { fromYear, toYear } = cars;
  if (fromYear === undefined) return toYear === undefined ? undefined : `to ${toYear}`;
  return toYear === undefined ? `from ${fromYear}` : `${fromYear} to ${toYear}`;
}
