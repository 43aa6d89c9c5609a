import { useState } from 'react';
import { fillPolicyQuestion, fillPolicyWords } from '../../core/filling';
import { monitoringWords } from '../../core/job/words';
import type { RelearnMethod } from '../../core/relearn/procedure';
import { methodWords } from '../../core/relearn/procedure/words';
import type { Part } from '../../core/part';
import type { Problem } from '../../core/result';
import { papers, type ShopSettings } from '../../core/shop';
import {
  distanceUnits,
  figure,
  height,
  heightUnits,
  parse,
  pressureUnits,
  temperatureUnits,
  type UnitChoice,
} from '../../core/units';
import type { Person } from '../../core/visit/person';
import type { ProfileSummary } from '../../core/visit/view';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Choice, Field, Picks } from '../kit/Field';
import { FilePick } from '../kit/FilePick';
import { NewPassphrase } from '../kit/NewPassphrase';
import { Notice } from '../kit/Notice';
import { optionsFrom } from '../kit/options';
import { Catalogue } from './Catalogue';
import { PriceFields } from './PriceFields';
import { PairedDevices, ResetPassphrase, SigningIn } from './SigningIn';
import styles from './Setup.module.css';

export type Account = Person & { active: boolean };
type Theme = 'light' | 'dark' | 'system';
const options = <Value extends string>(values: readonly Value[]) =>
  values.map((value) => ({ value, label: value }));

/** Units and look for whoever is signed in; people and vehicle profiles for a manager. */
export function Setup({
  person,
  theme: shownTheme,
  profiles,
  parts,
  people,
  shop,
  isHeadOffice,
}: {
  person: Person;
  theme: Theme;
  shop: ShopSettings;
  profiles: ProfileSummary[];
  parts: Part[];
  /** For a manager only. */
  people: Account[] | undefined;
  /** The other shops of the chain are looked into from here. */
  isHeadOffice: boolean;
}) {
  const [units, setUnits] = useState(person.units);
  const [own, setOwn] = useState(person.ownUnits);
  const [theme, setTheme] = useState(shownTheme);
  const [problem, setProblem] = useState<string>();
  const keep = async (next: UnitChoice | null) => {
    const kept = await ask('me', { body: { units: next } });
    setProblem(kept.ok ? undefined : kept.problem.message);
  };
  const chooseOwn = (next: 'shop' | 'own') => {
    setOwn(next === 'own');
    if (next === 'shop') setUnits(shop.units);
    void keep(next === 'own' ? units : null);
  };
  const choose = (next: UnitChoice) => {
    setUnits(next);
    void keep(next);
  };
  const chooseTheme = async (next: Theme) => {
    setTheme(next);
    const kept = await ask('me', { body: { theme: next } });
    if (!kept.ok) return setProblem(kept.problem.message);
    if (next === 'system') delete document.documentElement.dataset.theme;
    else document.documentElement.dataset.theme = next;
  };
  return (
    <main className={styles.setup}>
      <h1>Setup</h1>
      {problem && <Notice tone="wrong">{problem}</Notice>}
      <section className={styles.group} aria-labelledby="units">
        <h2 id="units">Units and look, for {person.name}</h2>
        <Choice
          label="Units"
          options={[
            { value: 'shop', label: 'as the shop' },
            { value: 'own', label: 'my own' },
          ]}
          value={own ? 'own' : 'shop'}
          onValue={chooseOwn}
        />
        {own && <Units units={units} onUnits={choose} />}
        <Choice
          label="Screen"
          options={[
            { value: 'system', label: 'as the device' },
            { value: 'light', label: 'light' },
            { value: 'dark', label: 'dark' },
          ]}
          value={theme}
          onValue={(next) => void chooseTheme(next)}
        />
      </section>
      <SigningIn name={person.name} secondFactor={person.secondFactor} />
      {person.role === 'manager' && (
        <section className={styles.group} aria-labelledby="records">
          <h2 id="records">Records</h2>
          <p>Taken away, brought in, read by programs, and who saw them.</p>
          <div>
            <a className={styles.link} href="/records">
              Open the records
            </a>
          </div>
          {isHeadOffice && (
            <div>
              <a className={styles.link} href="/chain">
                Shops of the chain
              </a>
            </div>
          )}
        </section>
      )}
      {person.role === 'manager' && <Shop stored={shop} />}
      {person.role === 'manager' && <PairedDevices />}
      {people && <People me={person} known={people} />}
      <Profiles known={profiles} mayAdd={person.role === 'manager'} />
      <Catalogue initial={parts} mayAdd={person.role === 'manager'} />
    </main>
  );
}

function Units({ units, onUnits }: { units: UnitChoice; onUnits: (units: UnitChoice) => void }) {
  return (
    <>
      <Choice
        label="Pressure"
        options={options(pressureUnits)}
        value={units.pressure}
        onValue={(pressure) => onUnits({ ...units, pressure })}
      />
      <Choice
        label="Temperature"
        options={options(temperatureUnits)}
        value={units.temperature}
        onValue={(temperature) => onUnits({ ...units, temperature })}
      />
      <Choice
        label="Distance"
        options={options(distanceUnits)}
        value={units.distance}
        onValue={(distance) => onUnits({ ...units, distance })}
      />
      <Choice
        label="Height"
        options={options(heightUnits)}
        value={units.height}
        onValue={(up) => onUnits({ ...units, height: up })}
      />
    </>
  );
}

/** Ways to teach a car in the order the shop likes them, where several are open and alike. */
function Preferred({
  methods,
  onMethods,
}: {
  methods: RelearnMethod[];
  onMethods: (methods: RelearnMethod[]) => void;
}) {
  return (
    <div>
      <Picks
        label="Relearn: of two ways alike, rather this one; in the order they are chosen"
        options={optionsFrom(methodWords)}
        values={methods}
        onValues={onMethods}
      />
      {methods.length > 1 && <p>{methods.map((method) => methodWords[method]).join(', then ')}</p>}
    </div>
  );
}

const ownTools = [
  { value: 'ownTool', label: 'an activation tool' },
  { value: 'ownLead', label: 'a scan tool for the car, or its own menu' },
] as const;

/** What holds for the whole shop; a manager's to say. */
function Shop({ stored }: { stored: ShopSettings }) {
  const [shop, setShop] = useState(stored);
  const [up, setUp] = useState(
    stored.altitudeM === null ? '' : figure(height, stored.altitudeM, stored.units.height),
  );
  const [error, setError] = useState<string>();
  const [unfinished, setUnfinished] = useState(false);
  const [said, setSaid] = useState<{ tone: 'right' | 'wrong'; text: string }>();
  const set = (part: Partial<ShopSettings>) => {
    setShop({ ...shop, ...part });
    setSaid(undefined);
  };
  const keep = async () => {
    const read = up.trim() === '' ? undefined : parse(height, up, shop.units.height);
    if (read && !read.ok) return setError(read.problem.message);
    if (unfinished) return setSaid({ tone: 'wrong', text: 'Not saved: fill in all four prices, or none.' });
    const next = { ...shop, altitudeM: read ? read.value.base : null };
    const kept = await ask('setShop', { body: next });
    setSaid(
      kept.ok
        ? {
            tone: 'right',
            text: 'Saved. Everyone who chose no units of their own follows from the next page on.',
          }
        : { tone: 'wrong', text: kept.problem.message },
    );
  };
  return (
    <section className={styles.group} aria-labelledby="shop">
      <h2 id="shop">The shop</h2>
      <form
        className={styles.form}
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <Units
          units={shop.units}
          onUnits={(units) => {
            const read = parse(height, up, shop.units.height);
            // The height stays what it is: its figure follows the unit.
            if (read.ok) setUp(figure(height, read.value.base, units.height));
            set({ units });
          }}
        />
        <Field
          label={`Height of the shop, ${shop.units.height}`}
          hint="For the air pressure; empty is sea level."
          value={up}
          onValue={(value) => {
            setUp(value);
            setError(undefined);
            setSaid(undefined);
          }}
          error={error}
        />
        <Choice
          label="Lamp rule where a car's own figures are not known"
          options={[
            { value: 'US', label: 'US, 25 % below placard' },
            { value: 'UN', label: 'UN, 20 % below placard' },
          ]}
          value={shop.regulation}
          onValue={(regulation) => set({ regulation })}
        />
        <Choice
          label={fillPolicyQuestion}
          options={optionsFrom(fillPolicyWords)}
          value={shop.fillPolicy}
          onValue={(fillPolicy) => set({ fillPolicy })}
        />
        <PriceFields
          prices={shop.prices}
          onPrices={(prices) => {
            setUnfinished(prices === undefined);
            if (prices !== undefined) set({ prices });
          }}
        />
        <Field
          label="Name of the shop, on the sheet"
          maxLength={120}
          value={shop.name}
          onValue={(name) => set({ name })}
        />
        <Field
          label="Address and telephone, on the sheet"
          maxLength={400}
          value={shop.address}
          onValue={(address) => set({ address })}
        />
        <Choice
          label="Paper"
          options={options(papers)}
          value={shop.paper}
          onValue={(paper) => set({ paper })}
        />
        <Picks
          label="Tools of the shop’s own that are not connected: what they show is typed"
          options={ownTools}
          values={ownTools.flatMap(({ value }) => (shop[value] ? [value] : []))}
          onValues={(has) => set({ ownTool: has.includes('ownTool'), ownLead: has.includes('ownLead') })}
        />
        <Choice
          label="Managers show a second factor at signing in"
          options={[
            { value: 'no', label: 'as they like' },
            { value: 'yes', label: 'always' },
          ]}
          value={shop.managersNeedSecondFactor ? 'yes' : 'no'}
          onValue={(needed) => set({ managersNeedSecondFactor: needed === 'yes' })}
        />
        <Preferred
          methods={shop.preferredMethods}
          onMethods={(preferredMethods) => set({ preferredMethods })}
        />
        {said && <Notice tone={said.tone}>{said.text}</Notice>}
        <div>
          <Button type="submit">Save the shop’s settings</Button>
        </div>
      </form>
    </section>
  );
}

const roleOptions = options(['technician', 'adviser', 'manager'] as const);

function People({ me, known }: { me: Person; known: Account[] }) {
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

function Profiles({ known, mayAdd }: { known: ProfileSummary[]; mayAdd: boolean }) {
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
