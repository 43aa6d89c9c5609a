import { lampWays, type LampWay } from '../../core/car/lamp/ways';
import { Choice } from '../kit/Field';

// Keys of the ways are ways.
const options = (Object.keys(lampWays) as LampWay[]).map((value) => ({
  value,
  label: lampWays[value].words,
}));

/** What the lamp does at ignition on, and after: nothing is taken as seen that was not chosen. */
export const LampChoice = ({
  label,
  value,
  onValue,
}: {
  label: string;
  value: LampWay | undefined;
  onValue: (way: LampWay) => void;
}) => <Choice {...{ label, options, value, onValue }} />;
