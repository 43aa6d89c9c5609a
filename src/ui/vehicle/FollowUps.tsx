import { useState } from 'react';
import { z } from 'zod';
import {
  aboutWords,
  followUpAbout,
  standing,
  type DueFollowUp,
  type Suggested,
} from '../../core/records/follow-up';
import { walkingOrder } from '../../core/names/wheel';
import { ask } from '../api';
import { useDeeds } from '../deeds';
import { day, type Place } from '../../core/measure/calendar';
import { Button } from '../kit/Button';
import { Field } from '../kit/Field';
import { Form, SelectIn, TextIn, useFilled } from '../kit/Form';
import { Notice } from '../kit/Notice';
import { text } from '../kit/typed';
import styles from './Vehicle.module.css';
import { dayAfter } from '../../core/measure/calendar/spans';

interface FollowUpsProps {
  vehicle: string;
  job?: string;
  initial: DueFollowUp[];
  /** What the visit asks for; one that is there already is not asked for again. */
  suggested: Suggested[];
  /** The day it is in the shop. */
  today: string;
  place: Place;
}

/** What is to be looked at again at this car: suggested, noted by hand, done or dropped with a word. */
export function FollowUps({ vehicle, job, initial, suggested, today, place }: FollowUpsProps) {
  const [list, setList] = useState(initial);
  const [problem, setProblem] = useState<string>();
  const open = list.filter(({ ended }) => !ended);
  const wanted = suggested.filter(
    ({ about, wheel }) => !open.some((one) => one.about === about && one.wheel === wheel),
  );
  const refresh = async () => {
    const all = await ask('followUps');
    if (!all.ok) return setProblem(all.problem.message);
    setProblem(undefined);
    setList([...all.value.filter((one) => one.vehicleId === vehicle), ...list.filter(({ ended }) => ended)]);
  };
  return (
    <div className={styles.followUps}>
      <ul>
        {open.map((one) => (
          <FollowUpLine
            key={one.key}
            followUp={one}
            today={today}
            place={place}
            onEnded={() => void refresh()}
          />
        ))}
        {open.length === 0 && <li className={styles.line}>Nothing is to be looked at again.</li>}
      </ul>
      {wanted.map((one) => (
        <NewFollowUp
          key={`${one.about} ${one.wheel ?? ''}`}
          {...{ vehicle, job, one }}
          onAdded={() => void refresh()}
        />
      ))}
      <details>
        <summary>Note another</summary>
        <NewFollowUp
          {...{ vehicle, job }}
          one={{ about: 'other', wheel: null, note: '', dueOn: dayAfter(today, 7) }}
          isOpen
          onAdded={() => void refresh()}
        />
      </details>
      {problem && <Notice tone="wrong">{problem}</Notice>}
    </div>
  );
}

/** One that is open: what, when, and how it ends. */
export function FollowUpLine({
  followUp: { key, about, wheel, note, dueOn, by, ...followUp },
  today,
  place,
  car = false,
  onEnded,
}: {
  followUp: DueFollowUp;
  today: string;
  place: Place;
  /** Whether the car is named too. */
  car?: boolean;
  onEnded: () => void;
}) {
  const [isDropping, setDropping] = useState(false);
  const [word, setWord] = useState('');
  const [problem, setProblem] = useState<string>();
  const end = async (outcome: 'done' | 'dropped') => {
    const ended = await ask('endFollowUp', { id: key, body: { outcome, word: word.trim() } });
    if (!ended.ok) return setProblem(ended.problem.issues?.[0]?.message ?? ended.problem.message);
    onEnded();
  };
  const stands = standing({ dueOn, ended: null }, today);
  return (
    <li className={styles.line}>
      <span>
        <b>
          {aboutWords[about]}
          {wheel && `, ${wheel}`}
        </b>
        {note && `: ${note}`}
        <span className={stands === 'overdue' ? styles.bad : styles.soft}>
          {stands === 'overdue' ? 'was due' : 'due'} {day(dueOn, place)}
          {stands === 'today' && ', today'}; noted by {by}
        </span>
        {car && (
          <a className={styles.link} href={`/vehicles/${followUp.vehicleId}`}>
            {[followUp.plate, followUp.label, followUp.customer, followUp.phone].filter(Boolean).join(', ')}
          </a>
        )}
      </span>
      <span className={styles.actions}>
        <Button onClick={() => void end('done')}>Done</Button>
        {isDropping ? (
          <>
            <Field label="Why is it dropped?" value={word} onValue={setWord} maxLength={500} />
            <Button disabled={word.trim() === ''} onClick={() => void end('dropped')}>
              Drop
            </Button>
          </>
        ) : (
          <Button weight="quiet" onClick={() => setDropping(true)}>
            Drop
          </Button>
        )}
      </span>
      {problem && <Notice tone="wrong">{problem}</Notice>}
    </li>
  );
}

const aboutOptions = followUpAbout.map((value) => ({ value, label: aboutWords[value] }));
const wheelOptions = [
  { value: '' as const, label: 'the car' },
  ...walkingOrder.map((value) => ({ value, label: value })),
];

const newFollowUp = z.object({
  about: z.enum(followUpAbout),
  wheel: z.enum(['', ...walkingOrder]),
  note: text,
  dueOn: z.iso.date('The day on which it is due.'),
});

function NewFollowUp({
  vehicle,
  job,
  one,
  isOpen = false,
  onAdded,
}: {
  vehicle: string;
  job: string | undefined;
  one: Suggested;
  isOpen?: boolean;
  onAdded: () => void;
}) {
  const form = useFilled(newFollowUp, {
    about: one.about,
    wheel: one.wheel ?? '',
    note: one.note,
    dueOn: one.dueOn,
  });
  const { control: of } = form;
  const { once, busy, problem } = useDeeds();
  return (
    <Form
      form={form}
      className={styles.newFollowUp}
      onRead={async ({ wheel, ...read }) => {
        const body = { vehicle, ...(job && { job }), ...read, ...(wheel && { wheel }) };
        const added = await once('new follow-up', (key) => ask('addFollowUp', { body: { key, ...body } }));
        if (added?.ok) onAdded();
      }}
    >
      {isOpen ? (
        <>
          <SelectIn of={of} name="about" label="What" options={aboutOptions} />
          <SelectIn of={of} name="wheel" label="At" options={wheelOptions} />
        </>
      ) : (
        <b>
          {aboutWords[one.about]}
          {one.wheel && `, ${one.wheel}`}
        </b>
      )}
      <TextIn of={of} name="note" label="Note" maxLength={500} />
      <TextIn of={of} name="dueOn" label="Due" type="date" />
      <Button type="submit" busy={busy}>
        Note it
      </Button>
      {problem && <Notice tone="wrong">{problem.message}</Notice>}
    </Form>
  );
}
