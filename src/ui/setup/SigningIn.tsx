import { useCallback, useEffect, useState } from 'react';
import type { PairedDevice, Person, SessionSummary } from '../../core/visit/person';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Field } from '../kit/Field';
import { NewPassphrase } from '../kit/NewPassphrase';
import { Notice } from '../kit/Notice';
import { SecondFactor } from './SecondFactor';
import styles from './Setup.module.css';
import { day, dayAndTime, type Place } from '../../core/measure/calendar';

type Said = { tone: 'right' | 'wrong'; text: string };

/** One's own passphrase, PIN and sessions. */
export function SigningIn({
  name,
  secondFactor,
  units: place,
}: Pick<Person, 'name' | 'secondFactor' | 'units'>) {
  const [passphrase, setPassphrase] = useState('');
  const [next, setNext] = useState('');
  const [pin, setPin] = useState('');
  const [said, setSaid] = useState<Said>();
  const [sessions, setSessions] = useState<SessionSummary[]>();
  const load = useCallback(() => ask('sessions').then((found) => found.ok && setSessions(found.value)), []);
  useEffect(() => void load(), [load]);
  const change = async (what: 'next' | 'pin' | 'no-pin') => {
    const set = await ask('setSecret', {
      body: {
        passphrase,
        ...(what === 'next' && { next }),
        ...(what === 'pin' && { pin }),
        ...(what === 'no-pin' && { pin: '' }),
      },
    });
    if (!set.ok) return setSaid({ tone: 'wrong', text: set.problem.message });
    setSaid({ tone: 'right', text: `${changed[what]} All your other sessions have ended.` });
    setPassphrase('');
    setNext('');
    setPin('');
    await load();
  };
  const end = async (session: string) => {
    const ended = await ask('endSession', { body: { session } });
    if (!ended.ok) setSaid({ tone: 'wrong', text: ended.problem.message });
    await load();
  };
  return (
    <section className={styles.group} aria-labelledby="signing-in">
      <h2 id="signing-in">Signing in</h2>
      <Field
        label="Your passphrase now"
        type="password"
        autoComplete="current-password"
        value={passphrase}
        onValue={setPassphrase}
      />
      <div className={styles.row}>
        <div className={styles.group}>
          <NewPassphrase label="New passphrase" name={name} value={next} onValue={setNext} />
          <Button disabled={passphrase === '' || next === ''} onClick={() => void change('next')}>
            Change the passphrase
          </Button>
        </div>
        <div className={styles.group}>
          <Field
            label="PIN for paired devices"
            type="password"
            inputMode="numeric"
            autoComplete="off"
            hint="4 to 8 digits; it is good only on a device that a manager has paired"
            maxLength={8}
            value={pin}
            onValue={setPin}
          />
          <div className={styles.row}>
            <Button disabled={passphrase === '' || pin === ''} onClick={() => void change('pin')}>
              Set the PIN
            </Button>
            <Button disabled={passphrase === ''} onClick={() => void change('no-pin')}>
              Take the PIN away
            </Button>
          </div>
        </div>
      </div>
      {said && <Notice tone={said.tone}>{said.text}</Notice>}
      <SecondFactor standing={secondFactor} passphrase={passphrase} />
      <h3>Where you are signed in</h3>
      <ul className={styles.people} aria-label="Sessions">
        {sessions?.map(({ id, startedAt, agent, here }) => (
          <li key={id}>
            <span>
              <b>{here ? 'Here' : browserIn(agent)}</b>, since {dayAndTime(startedAt, place)}
            </span>
            {!here && <Button onClick={() => void end(id)}>End it</Button>}
          </li>
        ))}
      </ul>
    </section>
  );
}

const changed = {
  next: 'The passphrase is changed.',
  pin: 'The PIN is set.',
  'no-pin': 'You have no PIN any more.',
};

/** What runs the browser, as far as it says so in a word. */
const browserIn = (agent: string): string =>
  /(iPad|iPhone|Android|Windows|Macintosh|Linux)/.exec(agent)?.[1] ?? 'Another device';

/** Devices on which a PIN is enough; a manager's to pair. */
export function PairedDevices({ place }: { place: Place }) {
  const [devices, setDevices] = useState<PairedDevice[]>();
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string>();
  useEffect(() => {
    void ask('pairedDevices').then((found) =>
      found.ok ? setDevices(found.value) : setProblem(found.problem.message),
    );
  }, []);
  const take = (answer: Awaited<ReturnType<typeof ask<'pairDevice'>>>) => {
    if (!answer.ok) return setProblem(answer.problem.message);
    setProblem(undefined);
    setName('');
    setDevices(answer.value);
  };
  return (
    <section className={styles.group} aria-labelledby="paired">
      <h2 id="paired">Devices that take a PIN</h2>
      <ul className={styles.people}>
        {devices?.map((device) => (
          <li key={device.id}>
            <span>
              <b>{device.name}</b>, paired {day(device.pairedAt, place)} by {device.pairedBy}
              {device.lastSeenAt && `, last used ${dayAndTime(device.lastSeenAt, place)}`}
            </span>
            <Button onClick={() => void ask('unpairDevice', { body: { device: device.id } }).then(take)}>
              Unpair
            </Button>
          </li>
        ))}
        {devices?.length === 0 && (
          <li>
            None. Pair the tablet of a bay here, on that tablet; whoever has a PIN taps their name then.
          </li>
        )}
      </ul>
      <form
        className={styles.row}
        onSubmit={(event) => {
          event.preventDefault();
          void ask('pairDevice', { body: { name } }).then(take);
        }}
      >
        <Field
          label="Name of this device"
          hint="Tablet, bay 2, say"
          maxLength={80}
          value={name}
          onValue={setName}
        />
        <div>
          <Button type="submit" disabled={name.trim() === ''}>
            Pair this device
          </Button>
        </div>
      </form>
      {problem && <Notice tone="wrong">{problem}</Notice>}
    </section>
  );
}

/** A manager gives somebody who forgot theirs another passphrase. */
export function ResetPassphrase({ id, name }: { id: string; name: string }) {
  const [open, setOpen] = useState(false);
  const [passphrase, setPassphrase] = useState('');
  const [said, setSaid] = useState<Said>();
  if (!open) return <Button onClick={() => setOpen(true)}>New passphrase for {name}</Button>;
  return (
    <form
      className={styles.row}
      onSubmit={(event) => {
        event.preventDefault();
        void ask('resetPassphrase', { id, body: { passphrase } }).then((set) => {
          setSaid(
            set.ok
              ? { tone: 'right', text: `Set. ${name} is signed out everywhere, and sets a PIN anew.` }
              : { tone: 'wrong', text: set.problem.message },
          );
          if (set.ok) setPassphrase('');
        });
      }}
    >
      <NewPassphrase
        label={`New passphrase for ${name}`}
        name={name}
        value={passphrase}
        onValue={setPassphrase}
      />
      <div>
        <Button type="submit" disabled={passphrase === ''}>
          Set it
        </Button>
      </div>
      {said && <Notice tone={said.tone}>{said.text}</Notice>}
    </form>
  );
}
