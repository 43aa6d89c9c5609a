import { useState } from 'react';
import type { SecondFactor as Standing } from '../../core/visit/person';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import { Qr } from '../kit/Qr';
import { qrPath } from '../office/labels/qr';
import styles from './Setup.module.css';

/** What is to be put into the app, until a first code shows that it is there. */
type Offered = { secret: string; uri: string };

/** A code at signing in, beside the passphrase: set up with an app on one's own phone. */
export function SecondFactor({ standing, passphrase }: { standing: Standing; passphrase: string }) {
  const [isOn, setOn] = useState(standing === 'on');
  const [offered, setOffered] = useState<Offered>();
  const [code, setCode] = useState('');
  const [recovery, setRecovery] = useState<string[]>();
  const [problem, setProblem] = useState<string>();

  const offer = async () => {
    const made = await ask('newSecondFactor', { body: { passphrase } });
    setProblem(made.ok ? undefined : made.problem.message);
    if (made.ok) setOffered(made.value);
  };
  const confirm = async ({ secret }: Offered) => {
    const set = await ask('setSecondFactor', { body: { passphrase, secret, code: code.trim() } });
    setProblem(set.ok ? undefined : set.problem.message);
    if (!set.ok) return;
    setOn(true);
    setOffered(undefined);
    setCode('');
    setRecovery(set.value.recovery);
  };
  const drop = async () => {
    const dropped = await ask('dropSecondFactor', { body: { passphrase } });
    setProblem(dropped.ok ? undefined : dropped.problem.message);
    if (!dropped.ok) return;
    setOn(false);
    setRecovery(undefined);
  };

  return (
    <section className={styles.group} aria-labelledby="second-factor">
      <h3 id="second-factor">Second factor</h3>
      {standing === 'needed' && !isOn && (
        <Notice tone="note">
          The shop asks its managers for a second factor. Until yours is set up, you can do what technicians
          do.
        </Notice>
      )}
      <p>
        {isOn
          ? 'On. Signing in with the passphrase also asks for a code.'
          : 'Off. With it, signing in with the passphrase also asks for a code of six digits, which an app on your phone shows.'}
      </p>
      {recovery && <Recovery codes={recovery} />}
      {offered && (
        <form
          className={styles.group}
          onSubmit={(event) => {
            event.preventDefault();
            void confirm(offered);
          }}
        >
          <p>Point the app at this, or type the letters into it. Then type the code it shows.</p>
          <Qr className={styles.qr} code={qrPath(offered.uri)} label="QR code for the app" />
          <p className="figures">{(offered.secret.match(/.{1,4}/g) ?? []).join(' ')}</p>
          <Field
            label="Code the app shows"
            inputMode="numeric"
            autoComplete="one-time-code"
            maxLength={12}
            value={code}
            onValue={setCode}
          />
          <div>
            <Button type="submit" weight="main" disabled={code.trim().length < 6}>
              Turn it on
            </Button>
          </div>
        </form>
      )}
      {problem && <Notice tone="wrong">{problem}</Notice>}
      <div className={styles.row}>
        {!offered && (
          <Button disabled={passphrase === ''} onClick={() => void offer()}>
            {isOn ? 'Set it up anew' : 'Set it up'}
          </Button>
        )}
        {isOn && (
          <Button disabled={passphrase === ''} onClick={() => void drop()}>
            Turn it off
          </Button>
        )}
      </div>
      {passphrase === '' && <p className={styles.soft}>Give your passphrase above first.</p>}
    </section>
  );
}

/** Told this once. */
function Recovery({ codes }: { codes: readonly string[] }) {
  return (
    <Notice tone="note">
      <p>
        Write these down and keep them apart from the phone: each signs you in once, should the phone be lost.
        They are shown this once.
      </p>
      <ul className="figures" aria-label="Codes to write down">
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </ul>
    </Notice>
  );
}
