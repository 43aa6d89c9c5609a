import { useId } from 'react';
import { Field } from '../kit/Field';
import styles from '../kit/Forms.module.css';

/** Whose car it is and what they say of it, as it is typed. */
interface CustomerEntry {
  customer: string;
  orderNumber: string;
  complaint: string;
}

export function CustomerFields({
  value,
  onValue,
}: {
  value: CustomerEntry;
  onValue: (name: keyof CustomerEntry) => (text: string) => void;
}) {
  const complaintId = useId();
  return (
    <>
      <div>
        <label htmlFor={complaintId}>
          <b>What the customer says</b>
        </label>
        <textarea
          id={complaintId}
          className={styles.textarea}
          maxLength={2000}
          value={value.complaint}
          onChange={({ target }) => onValue('complaint')(target.value)}
        />
      </div>
      <div className={styles.row}>
        <Field label="Customer" maxLength={120} value={value.customer} onValue={onValue('customer')} />
        <Field
          label="Order number"
          maxLength={40}
          value={value.orderNumber}
          onValue={onValue('orderNumber')}
        />
      </div>
    </>
  );
}
