import { CircleCheck, OctagonAlert, TriangleAlert } from 'lucide-react';
import type { ReactNode } from 'react';
import styles from './Notice.module.css';

const icons = { wrong: OctagonAlert, note: TriangleAlert, right: CircleCheck };

/** Something to know: wrong, worth a note, or right. */
export function Notice({
  tone,
  children,
  action,
}: {
  tone: keyof typeof icons;
  children: ReactNode;
  action?: ReactNode;
}) {
  const Icon = icons[tone];
  return (
    <div
      className={`${styles.notice} ${tone === 'note' ? '' : styles[tone]}`}
      role={tone === 'wrong' ? 'alert' : 'status'}
    >
      <Icon aria-hidden="true" />
      <div className={styles.text}>{children}</div>
      {action}
    </div>
  );
}
