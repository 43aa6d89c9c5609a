import { useId } from 'react';
import { walkingOrder, positionName, type Position } from '../../core/names/wheel';
import { places, seasons } from '../../core/records/wheel-set';
import { placeWords, seasonWords } from '../../core/records/wheel-set/words';
import { Button } from '../kit/Button';
import { Dialog } from '../kit/Dialog';
import { Choice, Field } from '../kit/Field';
import { Notice } from '../kit/Notice';
import { Sortable, SortableItem } from '../kit/Sortable';
import { ReadOnBench } from './ReadOnBench';
import { useSetEntry, type SetEntry } from './use-set-entry';
import formStyles from '../kit/Forms.module.css';
import styles from './Vehicle.module.css';

const seasonOptions = seasons.map((value) => ({ value, label: seasonWords[value] }));
const placeOptions = places.flatMap((value) =>
  value === 'car' ? [] : [{ value, label: placeWords[value] }],
);

/** A wheel set, new or as it now is: what it is called, where it is, and each of its wheels. */
export function EditSet({
  hasTool,
  onClose,
  ...asked
}: SetEntry & {
  /** An activation tool is connected: wheels on the bench are woken with it. */
  hasTool: boolean;
  onClose: () => void;
}) {
  const { vehicleId, set } = asked;
  const entry = useSetEntry(asked);
  const { form, label, season, place, rack, list, takeList, typed, change, problem, busy, save } = entry;
  const listId = useId();
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
            onValue={entry.setLabel}
            maxLength={60}
            hint="Unlike the others of this car"
          />
          {place === 'shop' && (
            <Field label="Place in the store" value={rack} onValue={entry.setRack} maxLength={40} figures />
          )}
        </div>
        <Choice label="For" options={seasonOptions} value={season} onValue={entry.setSeason} />
        <Choice label="It is" options={placeOptions} value={place} onValue={entry.setPlace} />
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
        <Sortable
          ids={walkingOrder}
          nameOf={(wheel) => positionName[wheel as Position].toLowerCase()}
          way="exchange"
          onMoved={(from, to) => entry.exchange(from as Position, to as Position)}
        >
          {walkingOrder.map((wheel) => (
            <WheelFields key={wheel} wheel={wheel} entry={entry} />
          ))}
        </Sortable>
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

/** What is known of one wheel of the set. */
function WheelFields({
  wheel,
  entry: { typed, change, errorAt },
}: {
  wheel: Position;
  entry: ReturnType<typeof useSetEntry>;
}) {
  return (
    <SortableItem
      as="fieldset"
      id={wheel}
      name={`the wheel at ${positionName[wheel].toLowerCase()}`}
      className={styles.wheel}
    >
      {(handle) => (
        <>
          <legend>{positionName[wheel]}</legend>
          {handle}
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
        </>
      )}
    </SortableItem>
  );
}
