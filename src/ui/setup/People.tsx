import { useState } from 'react';
import { useController, useWatch } from 'react-hook-form';
import { z } from 'zod';
import type { AnswerOf } from '../../contract';
import type { Problem } from '../../core/result';
import { roles, type Person } from '../../core/visit/person';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { ChoiceIn, Form, TextIn, useFilled } from '../kit/Form';
import { NewPassphrase } from '../kit/NewPassphrase';
import { Notice } from '../kit/Notice';
import { ResetPassphrase } from './SigningIn';
import styles from './Setup.module.css';
import { options } from './Units';

export type Account = AnswerOf<'people'>[number];

const roleOptions = options(roles);

/** Who works here, and what they may; a manager's to say. */
export function People({ me, known }: { me: Person; known: Account[] }) {
  const [people, setPeople] = useState(known);
  const [problem, setProblem] = useState<Problem>();
  const load = async () => {
    const found = await ask('people');
    if (found.ok) setPeople(found.value);
    setProblem(found.ok ? undefined : found.problem);
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
      {problem && <Notice tone="wrong">{problem.message}</Notice>}
      <NewPerson onAdded={load} />
    </section>
  );
}

const newPerson = z.object({
  name: z.string().trim().min(1, 'The name they sign in with.'),
  passphrase: z.string().min(1, 'A passphrase for the first time; they may choose another.'),
  role: z.enum(roles),
});

function NewPerson({ onAdded }: { onAdded: () => Promise<void> }) {
  const form = useFilled(newPerson, { name: '', passphrase: '', role: 'technician' });
  const { control: of } = form;
  const [problem, setProblem] = useState<Problem>();
  const passphrase = useController({ control: of, name: 'passphrase' });
  return (
    <Form
      form={form}
      className={styles.group}
      onRead={async (body) => {
        const added = await ask('addPerson', { body });
        setProblem(added.ok ? undefined : added.problem);
        if (!added.ok) return;
        form.reset();
        await onAdded();
      }}
    >
      <div className={styles.row}>
        <TextIn of={of} name="name" label="Name" />
        <NewPassphrase
          label="Passphrase"
          name={useWatch({ control: of, name: 'name' })}
          value={passphrase.field.value}
          error={passphrase.fieldState.error?.message}
          onValue={passphrase.field.onChange}
        />
      </div>
      <ChoiceIn of={of} name="role" label="Role" options={roleOptions} />
      {problem && <Notice tone="wrong">{problem.message}</Notice>}
      <Button type="submit">Add this person</Button>
    </Form>
  );
}
