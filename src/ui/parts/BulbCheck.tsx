import { Choice } from '../kit/Field';

export type BulbCheckAnswer = 'yes' | 'no';

/** Whether the lamp lights when the ignition goes on: a dark one proves nothing before that is known. */
export function BulbCheck({
  value,
  onValue,
}: {
  value: BulbCheckAnswer;
  onValue: (value: BulbCheckAnswer) => void;
}) {
  return (
    <Choice
      label="Does it light for its check at ignition on?"
      options={[
        { value: 'yes', label: 'yes' },
        { value: 'no', label: 'no, it stays dark' },
      ]}
      value={value}
      onValue={onValue}
    />
  );
}
