import { useId } from 'react';
import { useController, type Control, type FieldPathByValue, type FieldValues } from 'react-hook-form';
import { TextIn } from '../kit/Form';
import styles from '../kit/Forms.module.css';

/** Whose car it is and what they say of it. */
export function CustomerFields<Typed extends FieldValues, Read>({
  of,
}: {
  of: Control<Typed, unknown, Read>;
}) {
  const named = (name: 'complaint' | 'customer' | 'orderNumber') => name as FieldPathByValue<Typed, string>;
  const { field } = useController({ control: of, name: named('complaint') });
  const complaintId = useId();
  return (
    <>
      <div>
        <label htmlFor={complaintId}>
          <b>What the customer says</b>
        </label>
        <textarea {...field} id={complaintId} className={styles.textarea} maxLength={2000} />
      </div>
      <div className={styles.row}>
        <TextIn of={of} name={named('customer')} label="Customer" maxLength={120} />
        <TextIn of={of} name={named('orderNumber')} label="Order number" maxLength={40} />
      </div>
    </>
  );
}
