import { useState } from 'react';
import { regulationNames, regulations } from '../../core/tire/thresholds/regulations';
import { fillPolicyQuestion, fillPolicyWords } from '../../core/tire/filling';
import type { RelearnMethod } from '../../core/relearn/method';
import { methodWords } from '../../core/relearn/procedure/words';
import { regionCodes, regions } from '../../core/measure/region';
import { day, dayAndTime, type Place } from '../../core/measure/calendar';
import { shopSettingsSchema, type ShopSettings as Settings } from '../../core/records/shop';
import { decimal, figure, height, parse } from '../../core/measure/units';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Choice, Field, Picks, Select } from '../kit/Field';
import { Notice } from '../kit/Notice';
import { optionsFrom } from '../kit/options';
import { PriceFields } from './PriceFields';
import styles from './Setup.module.css';
import { Units } from './Units';

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

const yearsNeeded = 'years are a whole number from 1 to 30, or empty.';

/** After how long without a visit a customer is forgotten. */
function KeptYears({
  years,
  from,
  place,
  onYears,
}: {
  years: number | null;
  /** When it begins, where it was saved. */
  from: string | null;
  place: Place;
  /** Undefined while what is typed is none. */
  onYears: (years: number | null | undefined) => void;
}) {
  const [typed, setTyped] = useState(String(years ?? ''));
  const yearsIn = (text: string) =>
    text.trim() === '' ? null : shopSettingsSchema.shape.forgetAfterYears.safeParse(Number(text)).data;
  return (
    <Field
      label="Customers are deleted after so many years without a visit"
      hint={`With names, plates and VINs; what their wheels had stays. ${from ? `From ${day(from, place)} on` : 'A week after it is saved'}, and then for good. Empty: kept until somebody deletes them. Not while wheels of theirs are in the rack, or a car is to be looked at again.`}
      inputMode="numeric"
      maxLength={2}
      value={typed}
      onValue={(text) => {
        setTyped(text);
        onYears(yearsIn(text));
      }}
      error={yearsIn(typed) === undefined ? `Needed: ${yearsNeeded}` : undefined}
    />
  );
}

const ownTools = [
  { value: 'ownTool', label: 'an activation tool' },
  { value: 'ownLead', label: 'a scan tool for the car, or its own menu' },
] as const;

/** What holds for the whole shop; a manager's to say. */
export function ShopSettings({
  stored,
  place,
  timeZones,
}: {
  stored: Settings;
  place: Place;
  /** Names of those it may stand in. */
  timeZones: string[];
}) {
  const [shop, setShop] = useState(stored);
  const [up, setUp] = useState(
    stored.altitudeM === null ? '' : figure(height, stored.altitudeM, { ...stored.units, ...place }),
  );
  const [error, setError] = useState<string>();
  const [unfinished, setUnfinished] = useState<{ prices?: boolean; years?: boolean }>({});
  const [said, setSaid] = useState<{ tone: 'right' | 'wrong'; text: string }>();
  const set = (part: Partial<Settings>) => {
    setShop({ ...shop, ...part });
    setSaid(undefined);
  };
  const keep = async () => {
    const read = up.trim() === '' ? undefined : parse(height, up, shop.units.height);
    if (read && !read.ok) return setError(read.problem.message);
    if (unfinished.prices)
      return setSaid({ tone: 'wrong', text: 'Not saved: fill in all four prices, or none.' });
    if (unfinished.years) return setSaid({ tone: 'wrong', text: `Not saved: ${yearsNeeded}` });
    const next = { ...shop, altitudeM: read ? read.value.base : null };
    const kept = await ask('setShop', { body: next });
    if (kept.ok) setShop(kept.value);
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
            if (read.ok) setUp(figure(height, read.value.base, { ...place, ...units }));
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
        <Rules shop={shop} set={set} />
        <PriceFields
          prices={shop.prices}
          onPrices={(prices) => {
            setUnfinished({ ...unfinished, prices: prices === undefined });
            if (prices !== undefined) set({ prices });
          }}
        />
        <OnTheSheet shop={shop} set={set} />
        <WhereItIs shop={shop} set={set} timeZones={timeZones} />
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
        <KeptYears
          years={shop.forgetAfterYears}
          from={shop.forgetFrom}
          place={place}
          onYears={(years) => {
            setUnfinished({ ...unfinished, years: years === undefined });
            if (years !== undefined) set({ forgetAfterYears: years, forgetFrom: null });
          }}
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

/** What holds for cars and tires of which nothing else is known. */
function Rules({ shop, set }: { shop: Settings; set: (part: Partial<Settings>) => void }) {
  return (
    <>
      <Choice
        label="Lamp rule where a car's own figures are not known"
        options={regulationNames.map((name) => ({ value: name, label: regulations[name].title }))}
        value={shop.regulation}
        onValue={(regulation) => set({ regulation })}
      />
      <Choice
        label={fillPolicyQuestion}
        options={optionsFrom(fillPolicyWords)}
        value={shop.fillPolicy}
        onValue={(fillPolicy) => set({ fillPolicy })}
      />
    </>
  );
}

/** Who the shop is, as the customer reads it. */
function OnTheSheet({ shop, set }: { shop: Settings; set: (part: Partial<Settings>) => void }) {
  return (
    <>
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
    </>
  );
}

/** How days, hours and figures are written, by where the shop is. */
function WhereItIs({
  shop,
  set,
  timeZones,
}: {
  shop: Settings;
  set: (part: Partial<Settings>) => void;
  timeZones: string[];
}) {
  const { region, timeZone } = shop;
  const { paper } = regions[region];
  const sample = { region, timeZone: 'UTC' };
  return (
    <>
      <Select
        label="Region of the shop"
        hint={`Days and hours as ${dayAndTime(sampleMoment, sample)}; figures as ${decimal(2.3, 1, sample)}; the sheet on ${paper}.`}
        value={region}
        options={regionCodes.map((code) => ({ value: code, label: regions[code].label }))}
        onValue={(code) => set({ region: code })}
      />
      <Select
        label="Time zone of the shop"
        value={timeZone ?? ''}
        options={[
          { value: '', label: 'where the server stands' },
          ...timeZones.map((name) => ({ value: name, label: name.replaceAll('_', ' ') })),
        ]}
        onValue={(name) => set({ timeZone: name === '' ? null : name })}
      />
    </>
  );
}

/** An afternoon, so that hours of both kinds are told apart. */
const sampleMoment = '2026-03-09T14:05:00Z';
