import { useState } from 'react';
import { monitoringWords } from '../../core/job/words';
import type { ProfileSummary } from '../../contract/views';
import { ask } from '../api';
import { FilePick } from '../kit/FilePick';
import { Notice } from '../kit/Notice';
import styles from './Setup.module.css';

/** The kinds of vehicle the shop knows. */
export function Profiles({ known, mayAdd }: { known: ProfileSummary[]; mayAdd: boolean }) {
  const [profiles, setProfiles] = useState(known);
  const [problem, setProblem] = useState<string>();
  const take = async (document: unknown) => {
    setProblem(undefined);
    const saved = await ask('saveProfiles', { file: document });
    if (!saved.ok) {
      const [issue] = saved.problem.issues ?? [];
      return setProblem(
        issue ? `${saved.problem.message} ${issue.path}: ${issue.message}.` : saved.problem.message,
      );
    }
    const fresh = await ask('profiles');
    if (fresh.ok) setProfiles(fresh.value);
  };
  return (
    <section className={styles.group} aria-labelledby="profiles">
      <h2 id="profiles">Kinds of vehicle on file</h2>
      <ul className={styles.people}>
        {profiles.map(({ name, label, fromYear, toYear, kind }) => (
          <li key={name}>
            <b>{label}</b>
            <span className={styles.soft}>
              {fromYear ?? ''}–{toYear ?? 'now'}, {kind === 'none' ? '' : monitoringWords[kind]}
            </span>
          </li>
        ))}
        {profiles.length === 0 && <li>None yet. A manager imports a file of vehicle profiles here.</li>}
      </ul>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      {mayAdd && (
        <div>
          <FilePick
            label="Import vehicle profiles"
            onDocument={(document) => void take(document)}
            onProblem={setProblem}
          />
        </div>
      )}
    </section>
  );
}
