import { useRef, useState, type PointerEvent } from 'react';
import { Button } from '../kit/Button';
import styles from './SignaturePad.module.css';

export type Strokes = number[][];

/** Points nearer than this to the last one add nothing, thousandths of the width. */
const leastStep = 6;
const mostStrokes = 80;
const mostFigures = 598;

/** A field to sign in with a finger, a pen or the mouse; strokes in thousandths of its width. */
export function SignaturePad({ value, onValue }: { value: Strokes; onValue: (strokes: Strokes) => void }) {
  const field = useRef<SVGSVGElement>(null);
  const [drawing, setDrawing] = useState(false);
  const point = (event: PointerEvent): [number, number] | undefined => {
    const box = field.current?.getBoundingClientRect();
    if (!box || box.width === 0) return undefined;
    const bounded = (figure: number, most: number) => Math.min(most, Math.max(0, Math.round(figure)));
    return [
      bounded(((event.clientX - box.left) / box.width) * 1000, 1000),
      bounded(((event.clientY - box.top) / box.width) * 1000, 300),
    ];
  };
  const start = (event: PointerEvent) => {
    const at = point(event);
    if (!at || value.length >= mostStrokes) return;
    field.current?.setPointerCapture(event.pointerId);
    setDrawing(true);
    onValue([...value, at]);
  };
  const move = (event: PointerEvent) => {
    const at = point(event);
    const last = value.at(-1);
    if (!drawing || !at || !last || last.length >= mostFigures) return;
    const [x = 0, y = 0] = last.slice(-2);
    if (Math.hypot(at[0] - x, at[1] - y) < leastStep) return;
    onValue([...value.slice(0, -1), [...last, ...at]]);
  };
  return (
    <div className={styles.pad}>
      <svg
        ref={field}
        viewBox="0 0 1000 300"
        role="img"
        aria-label={value.length > 0 ? 'Signed' : 'Field to sign in'}
        onPointerDown={start}
        onPointerMove={move}
        onPointerUp={() => setDrawing(false)}
        onPointerCancel={() => setDrawing(false)}
      >
        {value.map((stroke, at) => (
          <polyline key={at} points={stroke.join(' ')} />
        ))}
      </svg>
      {value.length > 0 && <Button onClick={() => onValue([])}>Discard the signature</Button>}
    </div>
  );
}
