import { useEffect, useState } from 'react';
import type { ApiToken, ToldAddress } from '../../../contract/doors';
import { ask } from '../../api';
import { useDeeds } from '../../deeds';
import { dayAndTime, type Place } from '../../../core/measure/calendar';
import { Button } from '../../kit/Button';
import { Field } from '../../kit/Field';
import { Notice } from '../../kit/Notice';
import styles from './Records.module.css';

/** Programs that read: each with a token of its own, which is shown once. */
export function Tokens({ place }: { place: Place }) {
  const [tokens, setTokens] = useState<ApiToken[]>();
  const [name, setName] = useState('');
  const [fresh, setFresh] = useState<string>();
  const { once, problem } = useDeeds();
  useEffect(() => {
    void ask('apiTokens').then((found) => found.ok && setTokens(found.value));
  }, []);
  const make = async () => {
    const made = await once('new token', (key) => ask('makeToken', { body: { key, name } }));
    if (!made?.ok) return;
    setFresh(made.value.token);
    setTokens(made.value.tokens);
    setName('');
  };
  const end = async (id: string) => {
    const ended = await once(`end ${id}`, () => ask('endToken', { id, body: {} }));
    if (ended?.ok) setTokens(ended.value);
  };
  return (
    <section className={styles.group} aria-labelledby="programs">
      <h2 id="programs">Programs that read</h2>
      <p>
        A program with a token reads jobs, vehicles and lists over the API, as the counter sees them, and
        changes nothing. <a href="/api/openapi.json">What it can ask</a>
      </p>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          void make();
        }}
      >
        <Field label="Name of the program" value={name} onValue={setName} maxLength={80} />
        <Button type="submit" disabled={name.trim() === ''}>
          Make a token
        </Button>
      </form>
      {problem && <Notice tone="wrong">{problem.message}</Notice>}
      {fresh && (
        <Notice tone="note">
          Copy it now, it is not shown again: <code className={styles.secret}>{fresh}</code>
        </Notice>
      )}
      {tokens?.length === 0 && <p>No program reads here.</p>}
      <ul className={styles.list}>
        {tokens?.map((token) => (
          <li key={token.id}>
            <div>
              <b>{token.name}</b>
              <span>
                {`made ${dayAndTime(token.madeAt, place)} by ${token.madeBy}, `}
                {token.usedAt ? `read last ${dayAndTime(token.usedAt, place)}` : 'not used yet'}
                {token.ended && `; ended ${dayAndTime(token.ended.at, place)} by ${token.ended.by}`}
              </span>
            </div>
            {!token.ended && <Button onClick={() => void end(token.id)}>End it</Button>}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Addresses that are told when a car is handed over. */
export function Told({ place }: { place: Place }) {
  const [addresses, setAddresses] = useState<ToldAddress[]>();
  const [url, setUrl] = useState('');
  const [secret, setSecret] = useState<string>();
  const { once, problem } = useDeeds();
  useEffect(() => {
    void ask('toldAddresses').then((found) => found.ok && setAddresses(found.value));
  }, []);
  const add = async () => {
    const added = await once('new address', (key) => ask('addWebhook', { body: { key, url } }));
    if (!added?.ok) return;
    setSecret(added.value.secret);
    setAddresses(added.value.addresses);
    setUrl('');
  };
  const change = async (id: string, what: 'end' | 'again') => {
    const changed = await once(`${what} ${id}`, () => ask('changeWebhook', { id, body: { what } }));
    if (changed?.ok) setAddresses(changed.value);
  };
  return (
    <section className={styles.group} aria-labelledby="told">
      <h2 id="told">Told when a car is handed over</h2>
      <p>
        The address gets the job’s number, the vehicle, and whether it was proved, signed as Standard Webhooks
        has it. What does not arrive is sent again for three days.
      </p>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          void add();
        }}
      >
        <Field label="Address" type="url" value={url} onValue={setUrl} maxLength={500} />
        <Button type="submit" disabled={url.trim() === ''}>
          Tell it
        </Button>
      </form>
      {problem && <Notice tone="wrong">{problem.issues?.[0]?.message ?? problem.message}</Notice>}
      {secret && (
        <Notice tone="note">
          Its secret, shown once, by which it knows that it was told by this shop:{' '}
          <code className={styles.secret}>{secret}</code>
        </Notice>
      )}
      {addresses?.length === 0 && <p>Nobody is told.</p>}
      <ul className={styles.list}>
        {addresses?.map((one) => (
          <li key={one.id}>
            <div>
              <b className={styles.secret}>{one.url}</b>
              <span>
                {`${one.told} told, ${one.waiting} waiting, ${one.givenUp} given up`}
                {one.answer && `; last it ${one.answer}`}
                {one.nextAt && `; next try ${dayAndTime(one.nextAt, place)}`}
              </span>
            </div>
            <div className={styles.actions}>
              {one.waiting + one.givenUp > 0 && (
                <Button onClick={() => void change(one.id, 'again')}>Try again now</Button>
              )}
              <Button onClick={() => void change(one.id, 'end')}>Tell it no more</Button>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
