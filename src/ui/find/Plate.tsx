import styles from './Find.module.css';

/** A car's plate, as a plate. */
export const Plate = ({ plate }: { plate: string }) => (
  <span className={styles.plate}>{plate || 'no plate'}</span>
);
