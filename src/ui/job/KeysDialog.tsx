import { Dialog } from '../kit/Dialog';
import styles from './KeysDialog.module.css';

const keys = [
  ['1 … 5', 'choose a wheel, in walking order'],
  ['Enter', 'take the next move'],
  ['G', 'gauge the chosen wheel'],
  ['230 C', 'a reading, with C for a cold tire or W for a warm one'],
  ['W', 'wake the sensor of the chosen wheel'],
  ['L', 'the lamp'],
  ['P', 'the placard'],
  ['V', 'prove it'],
  ['E', 'look at the chosen wheel: tread, sidewall, stem'],
  ['I', 'what if'],
  ['Esc', 'close what is open'],
  ['?', 'these keys'],
] as const;

export function KeysDialog({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" onClose={onClose}>
      <dl className={styles.keys}>
        {keys.map(([key, meaning]) => (
          <div key={key}>
            <dt className="figures">{key}</dt>
            <dd>{meaning}</dd>
          </div>
        ))}
      </dl>
    </Dialog>
  );
}
