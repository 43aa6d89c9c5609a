import { useEffect, useRef, useState } from 'react';
import type { BroughtIn, CheckedList } from '../../../contract/doors';
import {
  decodeText,
  fieldNames,
  listFields,
  type ListField,
  type Mapping,
} from '../../../core/records/customer-list';
import { ask } from '../../api';
import { useDeeds } from '../../deeds';
import { dayAndTime, type Place } from '../../../core/measure/calendar';
import { Button } from '../../kit/Button';
import { DataTable } from '../../kit/DataTable';
import { Select } from '../../kit/Field';
import { FileButton } from '../../kit/FilePick';
import { Notice } from '../../kit/Notice';
import styles from './Records.module.css';

/** A list somebody chose, as it was looked at last. */
interface Chosen {
  name: string;
  text: string;
  checked: CheckedList;
}

const progressEveryMs = 500;
const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`;

/** A customer list of another program: looked at first, then brought in whole, and taken out again where it was wrong. */
export function BringIn({ place }: { place: Place }) {
  const [lists, setLists] = useState<BroughtIn[]>([]);
  const [chosen, setChosen] = useState<Chosen>();
  const { once, busy, problem, setProblem } = useDeeds();
  /** How far the list that is being brought in has come. */
  const [progress, setProgress] = useState<string>();
  const [said, setSaid] = useState<string>();
  const load = async () => {
    const found = await ask('customerLists');
    if (found.ok) setLists(found.value.lists);
    return found.ok ? found.value.running : null;
  };
  useEffect(() => {
    void ask('customerLists').then((found) => found.ok && setLists(found.value.lists));
  }, []);

  const check = async (list: Omit<Chosen, 'checked'>, mapping?: Mapping) => {
    setSaid(undefined);
    const asked = { body: { text: list.text, ...(mapping && { mapping }) } };
    const checked = await once(`look at ${list.name}`, () => ask('checkList', asked), 'Looking…');
    if (checked?.ok) setChosen({ ...list, checked: checked.value });
  };
  const take = async (file: File) => {
    const text = decodeText(new Uint8Array(await file.arrayBuffer()));
    if (text.ok) return check({ name: file.name, text: text.value });
    setChosen(undefined);
    setProblem(() => text.problem);
  };
  const bringIn = async ({ name, text, checked }: Chosen) => {
    const watch = setInterval(
      () =>
        void load().then(
          (running) => running && setProgress(`Bringing it in: ${running.done} of ${running.of}`),
        ),
      progressEveryMs,
    );
    const body = { name, text, mapping: checked.mapping, leaveOut: checked.leftOut };
    const done = await once(
      `bring in ${name}`,
      (key) => ask('bringInList', { body: { key, ...body } }),
      'Bringing it in…',
    );
    clearInterval(watch);
    setProgress(undefined);
    await load();
    if (!done) return;
    if (!done.ok) {
      if (done.problem.code !== 'list-changed') return;
      await check({ name, text }, checked.mapping);
      return setProblem(() => done.problem);
    }
    setChosen(undefined);
    setSaid(`${name} is in: ${wordsOf(done.value)}.`);
  };
  const takeOut = async ({ key, name }: BroughtIn) => {
    const done = await once(
      `take out ${key}`,
      () => ask('takeOutList', { id: key, body: {} }),
      'Taking it out…',
    );
    await load();
    if (!done?.ok) return;
    const { cars, customers } = done.value;
    setSaid(
      cars + customers === 0
        ? `${name} is out again, all of it.`
        : `${name} is out again, but for what was used since: ${counted(cars, 'car', 'cars')}, ${counted(customers, 'customer', 'customers')}.`,
    );
  };

  return (
    <section className={styles.group} aria-labelledby="bring-in">
      <h2 id="bring-in">Bring in a customer list</h2>
      <p>
        A CSV file with customers, and their vehicles by plate or VIN. It is looked at first; nothing is
        changed until you say so. What is on file stays as it is.
      </p>
      <div>
        <FileButton
          label="Choose a list"
          accept=".csv,.txt,.tsv,text/csv,text/plain"
          onFile={(file) => void take(file)}
        />
      </div>
      {busy && <p role="status">{progress ?? busy}</p>}
      {problem && <Notice tone="wrong">{problem.message}</Notice>}
      {said && <Notice tone="right">{said}</Notice>}
      {chosen && (
        <Checked
          chosen={chosen}
          busy={busy}
          onMapping={(mapping) => void check(chosen, mapping)}
          onBringIn={() => void bringIn(chosen)}
          onLeave={() => setChosen(undefined)}
        />
      )}
      {lists.length > 0 && (
        <ul className={styles.list}>
          {lists.map((list) => (
            <li key={list.key}>
              <div>
                <b>{list.name}</b>
                <span>
                  {dayAndTime(list.at, place)} by {list.by}: {wordsOf(list)}
                  {list.undone && `; taken out ${dayAndTime(list.undone.at, place)} by ${list.undone.by}`}
                </span>
              </div>
              {!list.undone && (
                <Button busy={busy} onClick={() => void takeOut(list)}>
                  Take it out
                </Button>
              )}
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

const wordsOf = ({ customers, cars, given }: Pick<BroughtIn, 'customers' | 'cars' | 'given'>): string =>
  [
    counted(customers, 'new customer', 'new customers'),
    counted(cars, 'new vehicle', 'new vehicles'),
    ...(given > 0
      ? [counted(given, 'vehicle on file gets its owner', 'vehicles on file get their owner')]
      : []),
  ].join(', ');

interface CheckedProps {
  chosen: Chosen;
  busy: string | undefined;
  onMapping: (mapping: Mapping) => void;
  onBringIn: () => void;
  onLeave: () => void;
}

function Checked({ chosen: { name, checked }, busy, onMapping, onBringIn, onLeave }: CheckedProps) {
  const { header, mapping, sample, rows, onFile, leftOut, refused } = checked;
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => heading.current?.focus(), [name]);
  const choose = (field: ListField, column: string) => {
    const chosen = Object.entries(mapping).filter(([other]) => other !== field);
    if (column !== '') chosen.push([field, Number(column)]);
    onMapping(Object.fromEntries(chosen));
  };
  const adds = checked.customers + checked.cars + checked.given;
  return (
    <div className={styles.group}>
      <h3 ref={heading} tabIndex={-1}>
        {name}: {counted(rows, 'row', 'rows')}
      </h3>
      <div className={styles.row}>
        {listFields.map((field) => (
          <Select
            key={field}
            label={fieldNames[field]}
            value={String(mapping[field] ?? '')}
            onValue={(column) => choose(field, column)}
            options={[
              { value: '', label: 'not in this list' },
              ...header.map((label, at) => ({ value: String(at), label })),
            ]}
          />
        ))}
      </div>
      <DataTable
        table={{
          name: 'sample',
          title: 'The first rows',
          columns: header.map((label, at) => ({ label: `${at + 1}: ${label}` })),
          rows: sample.map((cells) => header.map((_, at) => cells[at] ?? '')),
        }}
        empty="None."
      />
      <p>
        <b>It adds {wordsOf(checked)}.</b>{' '}
        {onFile > 0 && `${counted(onFile, 'row is', 'rows are')} on file already.`}
      </p>
      {leftOut > 0 && (
        <DataTable
          table={{
            name: 'left-out',
            title: `${counted(leftOut, 'row', 'rows')} left out`,
            columns: [{ label: 'row' }, { label: 'why' }],
            rows: refused.map(({ row, reason }) => [row, reason]),
          }}
          empty=""
        />
      )}
      <div className={styles.actions}>
        <Button weight="main" busy={busy} disabled={adds === 0} onClick={onBringIn}>
          {leftOut > 0 ? `Bring it in without ${counted(leftOut, 'row', 'rows')}` : 'Bring it in'}
        </Button>
        <Button onClick={onLeave}>Leave it</Button>
      </div>
    </div>
  );
}
