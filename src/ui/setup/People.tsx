import { useState } from 'react';
import type { AnswerOf } from '../../contract';
import type { Problem } from '../../core/result';
import type { Person } from '../../core/visit/person';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Choice, Field } from '../kit/Field';
import { NewPassphrase } from '../kit/NewPassphrase';
import { Notice } from '../kit/Notice';
import { ResetPassphrase } from './SigningIn';
import styles from './Setup.module.css';
import { options } from './Units';

export type Account = AnswerOf<'people'>[number];

const roleOptions = options(['technician', 'adviser', 'manager'] as const);

/** Who works here, and what they may; a manager's to say. */
export function People({ me, known }: { me: Person; known: Account[] }) {
  const [people, setPeople] = useState(known);
  const [name, setName] = useState('');
  const [passphrase, setPassphrase] = useState('');
  const [role, setRole] = useState<Person['role']>('technician');
  const [problem, setProblem] = useState<Problem>();
  const load = () =>
    ask('people').then((found) => (found.ok ? setPeople(found.value) : setProblem(found.problem)));
  const add = async () => {
    const added = await ask('addPerson', { body: { name, role, passphrase } });
    if (!added.ok) return setProblem(added.problem);
    setProblem(undefined);
    setName('');
    setPassphrase('');
    await load();
  };
  const setActive = async (id: string, active: boolean) => {
    const changed = await ask('setActive', { id, body: { active } });
    if (!changed.ok) return setProblem(changed.problem);
    await load();
  };
  const takeFactor = async (id: string) => {
    const taken = await ask('takeSecondFactor', { id, body: {} });
    if (!taken.ok) return setProblem(taken.problem);
    await load();
  };
  return (
    <section className={styles.group} aria-labelledby="people">
      <h2 id="people">People</h2>
      <ul className={styles.people}>
        {people.map(({ id, name: who, role: what, active, secondFactor }) => (
          <li key={id}>
            <span>
              <b>{who}</b>, {what}
              {secondFactor === 'on' && ', second factor'}
              {!active && ', closed'}
            </span>
            {id !== me.id && (
              <>
                <ResetPassphrase id={id} name={who} />
                {secondFactor === 'on' && (
                  <Button onClick={() => void takeFactor(id)}>Take the second factor from {who}</Button>
                )}
                <Button onClick={() => void setActive(id, !active)}>
                  {active ? 'Close account' : 'Open again'}
                </Button>
              </>
            )}
          </li>
        ))}
      </ul>
      <form
        className={styles.group}
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <div className={styles.row}>
          <Field label="Name" value={name} onValue={setName} />
          <NewPassphrase label="Passphrase" name={name} value={passphrase} onValue={setPassphrase} />
        </div>
        <Choice label="Role" options={roleOptions} value={role} onValue={setRole} />
        {problem && <Notice tone="wrong">{problem.message}</Notice>}
        <Button type="submit" disabled={name.trim() === '' || passphrase === ''}>
          Add this person
        </Button>
      </form>
    </section>
  );
}
