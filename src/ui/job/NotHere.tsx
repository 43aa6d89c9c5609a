import { technicianOnly } from '../../core/visit/rights';
import { Dialog } from '../kit/Dialog';

const words = {
  'not-yours': {
    title: 'Not at the counter',
    text: `${technicianOnly} You can read all of it here, note the lamp, and hand the car over.`,
  },
  'no-connection': {
    title: 'No connection to the shop',
    text: 'No connection to the shop, and this needs it. Nothing is lost: readings, looks, codes, the placard, the service of a sensor and corrections can be entered as usual; they are saved on this device and sent once the connection is back.',
  },
};

/** Why something cannot be done by this person, or now; said before anything is entered. */
export function NotHere({ why, onClose }: { why: keyof typeof words; onClose: () => void }) {
  return (
    <Dialog title={words[why].title} onClose={onClose}>
      <p>{words[why].text}</p>
    </Dialog>
  );
}
