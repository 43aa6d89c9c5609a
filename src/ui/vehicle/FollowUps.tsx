import { useState } from 'react';
import {
  aboutWords,
  followUpAbout,
  standing,
  type DueFollowUp,
  type FollowUpAbout,
  type Suggested,
} from '../../core/records/follow-up';
import { walkingOrder, type Position } from '../../core/names/wheel';
import { ask } from '../api';
import { useDeeds } from '../deeds';
import { day, type Place } from '../../core/measure/calendar';
import { Button } from '../kit/Button';
import { Field, Select } from '../kit/Field';
import { Notice } from '../kit/Notice';
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
  { value: '', label: 'the car' },
  ...walkingOrder.map((value) => ({ value, label: value })),
];

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
  const [about, setAbout] = useState<FollowUpAbout>(one.about);
  const [wheel, setWheel] = useState<Position | ''>(one.wheel ?? '');
  const [note, setNote] = useState(one.note);
  const [dueOn, setDueOn] = useState(one.dueOn);
  const { once, busy, problem } = useDeeds();
  const add = async () => {
    const body = {
      vehicle,
      ...(job && { job }),
      about,
      ...(wheel && { wheel }),
      note: note.trim(),
      dueOn,
    };
    const added = await once('new follow-up', (key) => ask('addFollowUp', { body: { key, ...body } }));
    if (added?.ok) onAdded();
  };
  return (
    <form
      className={styles.newFollowUp}
      onSubmit={(event) => {
        event.preventDefault();
        void add();
      }}
    >
      {isOpen ? (
        <>
          <Select
            label="What"
            value={about}
            options={aboutOptions}
            onValue={(value) => setAbout(value as FollowUpAbout)}
          />
          <Select
            label="At"
            value={wheel}
            options={wheelOptions}
            onValue={(value) => setWheel(value as Position | '')}
          />
        </>
      ) : (
        <b>
          {aboutWords[about]}
          {wheel && `, ${wheel}`}
        </b>
      )}
      <Field label="Note" value={note} onValue={setNote} maxLength={500} />
      <Field label="Due" type="date" value={dueOn} onValue={setDueOn} />
      <Button type="submit" busy={busy} disabled={dueOn === ''}>
        Note it
      </Button>
      {problem && <Notice tone="wrong">{problem.message}</Notice>}
    </form>
  );
}
