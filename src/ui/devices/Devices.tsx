import { CircleCheck, CircleDashed, OctagonAlert } from 'lucide-react';
import { useState } from 'react';
import { recently, type Place } from '../../core/measure/calendar';
import type { DeviceAddresses, ShopSettings } from '../../core/records/shop';
import type { DeviceState } from '../../contract/views';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import forms from '../kit/Forms.module.css';
import styles from './Devices.module.css';

type Kind = DeviceState['kind'];

const words: Record<Kind, { name: string; what: string; without: string; hint: string }> = {
  tool: {
    name: 'Activation tool',
    what: 'wakes sensors, and programs those in its cradle',
    without: 'What the tool in your hand shows is typed.',
    hint: 'Host and port on the shop’s network: 192.168.1.20:4700, say',
  },
  lead: {
    name: 'Lead to the car',
    what: 'reads and registers IDs, codes and live pressures',
    without: 'What the car or another tool says is typed.',
    hint: 'Host and port on the shop’s network: 192.168.1.21:4701, say',
  },
  weather: {
    name: 'Weather service',
    what: 'the air of now, and of the nights to come',
    without: 'Temperatures are typed.',
    hint: 'The address it answers at, with http:// or https://',
  },
};

/** What is connected, since when, when it was last heard and by whom it was used; a manager sets it up here. */
export function Devices({
  initial,
  shop,
  maySetUp,
  place,
}: {
  initial: DeviceState[];
  shop: ShopSettings;
  maySetUp: boolean;
  place: Place;
}) {
  const [devices, setDevices] = useState(initial);
  const [addresses, setAddresses] = useState(shop.devices);
  const [said, setSaid] = useState<{ tone: 'right' | 'wrong'; text: string }>();
  const [trying, setTrying] = useState<Kind>();
  const tryOut = async (kind: Kind) => {
    setTrying(kind);
    const answer = await ask('tryDevice', { body: { kind } });
    setTrying(undefined);
    if (answer.ok) setDevices(answer.value);
    else setSaid({ tone: 'wrong', text: answer.problem.message });
  };
  const save = async () => {
    const kept = await ask('setShop', { body: { ...shop, devices: addresses } });
    if (!kept.ok) {
      const [issue] = kept.problem.issues ?? [];
      return setSaid({ tone: 'wrong', text: issue?.message ?? kept.problem.message });
    }
    setSaid({ tone: 'right', text: 'Saved. It holds from the next reading on.' });
    const fresh = await ask('devices');
    if (fresh.ok) setDevices(fresh.value);
  };
  return (
    <main className={styles.devices}>
      <h1>Devices</h1>
      <p>Devices are a convenience: whatever they would read can be typed, and counts the same.</p>
      <ul className={styles.list}>
        {devices.map((device) => (
          <li key={device.kind}>
            <div>
              <h2>{words[device.kind].name}</h2>
              <p className={forms.soft}>{words[device.kind].what}</p>
            </div>
            <State device={device} place={place} />
            {device.address !== '' && (
              <Button
                busy={trying === device.kind ? 'Trying…' : undefined}
                onClick={() => void tryOut(device.kind)}
              >
                Try {words[device.kind].name.toLowerCase()}
              </Button>
            )}
          </li>
        ))}
      </ul>
      {maySetUp ? (
        <form
          className={forms.form}
          onSubmit={(event) => {
            event.preventDefault();
            void save();
          }}
        >
          <h2>Where they answer</h2>
          {devices.map(({ kind, namedAtStart, address }) => (
            <Field
              key={kind}
              label={words[kind].name}
              hint={
                namedAtStart
                  ? `Named as ${address} by the command that started the server; that comes first.`
                  : `${words[kind].hint}. Empty: none.`
              }
              disabled={namedAtStart}
              autoCapitalize="off"
              spellCheck={false}
              value={addresses[kind]}
              onValue={(value) => setAddresses((now): DeviceAddresses => ({ ...now, [kind]: value }))}
            />
          ))}
          {said && <Notice tone={said.tone}>{said.text}</Notice>}
          <div>
            <Button type="submit">Save where they answer</Button>
          </div>
        </form>
      ) : (
        <p className={forms.soft}>A manager sets devices up here.</p>
      )}
    </main>
  );
}

function State({
  device: { kind, address, since, lastHeardAt, trouble, by },
  place,
}: {
  device: DeviceState;
  place: Place;
}) {
  if (address === '') {
    return (
      <p className={styles.state}>
        <CircleDashed aria-hidden="true" />
        <span>
          <b>None set up.</b> {words[kind].without}
        </span>
      </p>
    );
  }
  if (since) {
    return (
      <p className={`${styles.state} ${styles.right}`}>
        <CircleCheck aria-hidden="true" />
        <span>
          <b>Answers</b> at {address} since {when(since, place)}; last heard {when(lastHeardAt, place)}
          {by && `, used by ${by}`}.
        </span>
      </p>
    );
  }
  if (trouble) {
    return (
      <p className={`${styles.state} ${styles.wrong}`}>
        <OctagonAlert aria-hidden="true" />
        <span>
          <b>Does not answer</b>, {when(trouble.at, place)}. {trouble.message}{' '}
          {lastHeardAt && `Last heard ${when(lastHeardAt, place)}.`}
        </span>
      </p>
    );
  }
  return (
    <p className={styles.state}>
      <CircleDashed aria-hidden="true" />
      <span>
        <b>Not heard yet</b>, at {address}. Try it.
      </span>
    </p>
  );
}

const when = (at: string | null, place: Place): string => (at === null ? 'never' : recently(at, place));
