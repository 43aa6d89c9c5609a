import { useState } from 'react';
import { Button } from '../kit/Button';
import { LabelDialog } from './LabelDialog';

/** A label for one sensor. */
export function SensorLabel({ sensorId }: { sensorId: string }) {
  const [isOpen, setOpen] = useState(false);
  return (
    <div>
      <Button onClick={() => setOpen(true)}>Label for this sensor</Button>
      {isOpen && <LabelDialog wanted={[{ of: 'sensor', sensorId }]} onClose={() => setOpen(false)} />}
    </div>
  );
}
