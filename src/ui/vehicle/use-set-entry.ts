import { useEffect, useRef, useState } from 'react';
import { v7 as newId } from 'uuid';
import type { Issue } from '../../core/result';
import { idsFromText } from '../../core/names/sensor-id';
import { walkingOrder, type Position } from '../../core/names/wheel';
import { type Place, type Season, type SetWheel, type WheelSet } from '../../core/records/wheel-set';
import { ask } from '../api';

/** A wheel as it is typed. */
export type Typed = Record<'sensorId' | 'newOn' | 'treadMm' | 'dot' | 'size', string>;
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

export interface SetEntry {
  vehicleId: string;
  set: WheelSet | undefined;
  onSaved: (sets: WheelSet[]) => void;
}

/** A wheel set as it is typed, and how it is saved. */
export function useSetEntry({ vehicleId, set, onSaved }: SetEntry) {
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
  /** Two wheels change places: one was laid, or read, where the other belongs. */
  const exchange = (one: Position, other: Position) => {
    setTyped((now) => ({ ...now, [one]: now[other] ?? blank, [other]: now[one] ?? blank }));
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
  return {
    form,
    label,
    setLabel,
    season,
    setSeason,
    place,
    setPlace,
    rack,
    setRack,
    list,
    takeList,
    typed,
    change,
    exchange,
    errorAt,
    problem,
    busy,
    save,
  };
}
