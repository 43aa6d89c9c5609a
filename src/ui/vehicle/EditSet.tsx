import { useEffect, useId, useRef, useState } from 'react';
import { v7 as newId } from 'uuid';
import type { Issue } from '../../core/result';
import { idsFromText } from '../../core/sensor-id';
import { walkingOrder, positionName, type Position } from '../../core/wheel';
import { places, seasons, type Place, type Season, type SetWheel, type WheelSet } from '../../core/wheel-set';
import { placeWords, seasonWords } from '../../core/wheel-set/words';
import { ask } from '../api';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Choice, Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import { ReadOnBench } from './ReadOnBench';
import formStyles from '../kit/Forms.module.css';
import styles from './Vehicle.module.css';

const seasonOptions = seasons.map((value) => ({ value, label: seasonWords[value] }));
const placeOptions = places.flatMap((value) =>
  value === 'car' ? [] : [{ value, label: placeWords[value] }],
);

/** A wheel as it is typed. */
type Typed = Record<'sensorId' | 'newOn' | 'treadMm' | 'dot' | 'size', string>;
const blank: Typed = { sensorId: '', newOn: '', treadMm: '', dot: '', size: '' };
type Wheels = Partial<Record<Position, Typed>>;

const typedFrom = ({ sensorId, newOn, treadMm, dot, size }: SetWheel): Typed => ({
  sensorId: sensorId ?? '',
  newOn: newOn ?? '',
  treadMm: treadMm === null ? '' : String(treadMm),
  dot: dot ?? '',
  size: size ?? '',
});

function wheelsFrom(typed: Wheels): SetWheel[] {
  return walkingOrder.flatMap((wheel): SetWheel[] => {
    const one = typed[wheel];
    if (!one || Object.values(one).every((text) => text.trim() === '')) return [];
    return [
      {
        wheel,
        sensorId: one.sensorId.trim() || null,
        newOn: one.newOn || null,
        treadMm: one.treadMm.trim() === '' ? null : Number(one.treadMm.replace(',', '.')),
        dot: one.dot.trim() || null,
        size: one.size.trim() || null,
      },
    ];
  });
}

/** A wheel set, new or as it now is: what it is called, where it is, and each of its wheels. */
export function EditSet({
  vehicleId,
  set,
  hasTool,
  onSaved,
  onClose,
}: {
  vehicleId: string;
  set: WheelSet | undefined;
  /** An activation tool is connected: wheels on the bench are woken with it. */
  hasTool: boolean;
  onSaved: (sets: WheelSet[]) => void;
  onClose: () => void;
}) {
  const [id] = useState(() => set?.id ?? newId());
  const [label, setLabel] = useState(set?.label ?? '');
  const [season, setSeason] = useState<Season>(set?.season ?? 'winter');
  const [place, setPlace] = useState<Exclude<Place, 'car'>>(set && set.place !== 'car' ? set.place : 'shop');
  const [rack, setRack] = useState(set?.rack ?? '');
  const [typed, setTyped] = useState<Wheels>(() =>
    Object.fromEntries(
      (set?.wheels ?? []).flatMap((one) => (one.wheel ? [[one.wheel, typedFrom(one)]] : [])),
    ),
  );
  const listId = useId();
  const [list, setList] = useState('');
  const [issues, setIssues] = useState<Issue[]>([]);
  const [problem, setProblem] = useState<string>();
  const [busy, setBusy] = useState(false);
  const form = useRef<HTMLFormElement>(null);
  // On a phone what is wrong may stand far above the button.
  useEffect(() => {
    if (issues.length > 0) form.current?.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus();
  }, [issues]);
  const wheels = wheelsFrom(typed);
  const errorAt = (wheel: Position, field: keyof Typed): string | undefined => {
    const at = wheels.findIndex((one) => one.wheel === wheel);
    return issues.find(({ path }) => path === `wheels.${at}.${field}`)?.message;
  };
  const change = (wheel: Position, field: keyof Typed) => (text: string) => {
    setTyped((now) => ({ ...now, [wheel]: { ...(now[wheel] ?? blank), [field]: text } }));
    setIssues([]);
  };
  const takeList = (text: string) => {
    setList(text);
    for (const [wheel, sensorId] of Object.entries(idsFromText(text, walkingOrder)))
      change(wheel as Position, 'sensorId')(sensorId);
  };
  const save = async () => {
    const unread = wheels.filter(({ treadMm }) => treadMm !== null && !(treadMm >= 0 && treadMm <= 30));
    if (unread.length > 0) {
      setIssues(
        unread.map((one) => ({
          path: `wheels.${wheels.indexOf(one)}.treadMm`,
          message: 'The tread in millimetres, 0 to 30.',
        })),
      );
      return;
    }
    setBusy(true);
    const saved = await ask('saveSet', {
      id: vehicleId,
      body: {
        id,
        version: set?.version ?? 0,
        label: label.trim(),
        season,
        place,
        rack: place === 'shop' ? rack.trim() || null : null,
        wheels: [...wheels, ...(set?.wheels.filter(({ wheel }) => wheel === null) ?? [])],
      },
    });
    setBusy(false);
    if (saved.ok) return onSaved(saved.value);
    setIssues(saved.problem.issues ?? []);
    setProblem(saved.problem.message);
  };
  return (
    <Dialog title={set ? `Wheel set ${set.label}` : 'A new wheel set'} wide onClose={onClose}>
      <form
        ref={form}
        className={formStyles.form}
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <div className={formStyles.row}>
          <Field
            label="Called"
            value={label}
            onValue={setLabel}
            maxLength={60}
            hint="Unlike the others of this car"
          />
          {place === 'shop' && (
            <Field label="Place in the store" value={rack} onValue={setRack} maxLength={40} figures />
          )}
        </div>
        <Choice label="For" options={seasonOptions} value={season} onValue={setSeason} />
        <Choice label="It is" options={placeOptions} value={place} onValue={setPlace} />
        {hasTool && (
          <ReadOnBench
            vehicleId={vehicleId}
            idAt={(wheel) => typed[wheel]?.sensorId}
            onHeard={(wheel, sensorId) => change(wheel, 'sensorId')(sensorId)}
          />
        )}
        <div>
          <label htmlFor={listId}>
            <b>Paste a list of IDs</b>
          </label>
          <textarea
            id={listId}
            className={formStyles.textarea}
            spellCheck={false}
            value={list}
            onChange={({ target }) => takeList(target.value)}
          />
          <p>As a tool exports it, in walking order or each with its wheel; they go into the fields below.</p>
        </div>
        {walkingOrder.map((wheel) => (
          <fieldset key={wheel} className={styles.wheel}>
            <legend>{positionName[wheel]}</legend>
            <Field
              label="Sensor ID"
              figures
              value={typed[wheel]?.sensorId ?? ''}
              error={errorAt(wheel, 'sensorId')}
              maxLength={64}
              onValue={change(wheel, 'sensorId')}
            />
            <Field
              label="Sensor new on"
              type="date"
              value={typed[wheel]?.newOn ?? ''}
              onValue={change(wheel, 'newOn')}
            />
            <Field
              label="Tread, mm"
              inputMode="decimal"
              value={typed[wheel]?.treadMm ?? ''}
              error={errorAt(wheel, 'treadMm')}
              onValue={change(wheel, 'treadMm')}
            />
            <Field
              label="Tire made"
              placeholder="3421"
              value={typed[wheel]?.dot ?? ''}
              error={errorAt(wheel, 'dot')}
              maxLength={40}
              onValue={change(wheel, 'dot')}
            />
            <Field
              label="Size"
              value={typed[wheel]?.size ?? ''}
              maxLength={40}
              onValue={change(wheel, 'size')}
            />
          </fieldset>
        ))}
        {problem && <Notice tone="wrong">{problem}</Notice>}
        <div className={formStyles.actions}>
          <Button
            weight="main"
            type="submit"
            busy={busy ? 'Saving…' : undefined}
            disabled={label.trim() === ''}
          >
            Save the set
          </Button>
        </div>
      </form>
    </Dialog>
  );
}
