import { useState } from 'react';
import type { Part } from '../../core/sensor/part';
import type { ShopSettings as Settings } from '../../core/records/shop';
import type { UnitChoice } from '../../core/measure/units';
import type { Person } from '../../core/visit/person';
import type { ProfileSummary } from '../../contract/views';
import { ask } from '../api';
import { Choice } from '../kit/Field';
import { Notice } from '../kit/Notice';
import { Catalogue } from './Catalogue';
import { People, type Account } from './People';
import { Profiles } from './Profiles';
import { ShopSettings } from './ShopSettings';
import { Units } from './Units';
import { PairedDevices, SigningIn } from './SigningIn';
import styles from './Setup.module.css';

type Theme = 'light' | 'dark' | 'system';
/** Units and look for whoever is signed in; people and vehicle profiles for a manager. */
export function Setup({
  person,
  theme: shownTheme,
  profiles,
  parts,
  people,
  shop,
  isHeadOffice,
  timeZones,
}: {
  person: Person;
  theme: Theme;
  shop: Settings;
  profiles: ProfileSummary[];
  parts: Part[];
  /** For a manager only. */
  people: Account[] | undefined;
  /** The other shops of the chain are looked into from here. */
  isHeadOffice: boolean;
  /** Names a shop may say it is in. */
  timeZones: string[];
}) {
  const [units, setUnits] = useState<UnitChoice>(person.units);
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
  // A manager who lacks the second factor the shop asks for sets that up first.
  const manages = person.role === 'manager' && person.secondFactor !== 'needed';
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
      <SigningIn {...person} />
      {manages && (
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
      {manages && <ShopSettings stored={shop} place={person.units} timeZones={timeZones} />}
      {manages && <PairedDevices place={person.units} />}
      {people && <People me={person} known={people} />}
      <Profiles known={profiles} mayAdd={manages} />
      <Catalogue initial={parts} mayAdd={manages} />
    </main>
  );
}
