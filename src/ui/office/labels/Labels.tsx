import { groupedCode } from '../../../core/names/label';
import { placesOn, type LabelStock } from '../../../core/names/label/sheets';
import { Button } from '../../kit/Button';
import buttonStyles from '../../kit/Button.module.css';
import styles from './Labels.module.css';
import { Qr } from '../../kit/Qr';
import { qrPath } from './qr';

interface LabelsProps {
  labels: { code: string; lines: string[] }[];
  stock: LabelStock;
  used: number;
  pdf: string;
}

const mm = (value: number) => `${value}mm`;

/** Labels as they lie on their sheet or roll, in their true size. */
export function Labels({ labels, stock, used, pdf }: LabelsProps) {
  const placed = placesOn(stock, labels.length, used).map((place, at) => ({ ...place, label: labels[at] }));
  const pages = [...new Set(placed.map(({ page }) => page))];
  const { page: paper, label: size } = stock;
  return (
    <>
      <div className={styles.tools}>
        <p>
          {labels.length} {labels.length === 1 ? 'label' : 'labels'} on {stock.title}. Print at 100 %, without
          margins of the browser.
        </p>
        <Button weight="main" disabled={labels.length === 0} onClick={() => window.print()}>
          Print
        </Button>
        <a className={buttonStyles.button} href={pdf}>
          PDF
        </a>
      </div>
      {labels.length === 0 && (
        <p>None of these labels was made here. Ask for them again where the set or the car is.</p>
      )}
      {pages.map((page) => (
        <div
          key={page}
          className={styles.page}
          style={{ width: mm(paper.widthMm), height: mm(paper.heightMm) }}
        >
          {placed.map(
            ({ page: on, xMm, yMm, label }) =>
              on === page &&
              label && (
                <div
                  key={label.code}
                  className={styles.label}
                  style={{
                    left: mm(xMm),
                    top: mm(yMm),
                    width: mm(size.widthMm),
                    height: mm(size.heightMm),
                    fontSize: mm(Math.min(size.heightMm * 0.1, 4.4)),
                  }}
                >
                  <Qr className={styles.qr} code={qrPath(label.code)} label={`QR code of ${label.code}`} />
                  <div className={styles.words}>
                    <b className="figures">{groupedCode(label.code)}</b>
                    {label.lines.map((line) => (
                      <span key={line}>{line}</span>
                    ))}
                  </div>
                </div>
              ),
          )}
        </div>
      ))}
    </>
  );
}
