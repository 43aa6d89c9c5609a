import { setting } from '../settings';
import people from '../../demo/people.json';

/** The made-up accounts of the demo, shown on its sign-in page; none where a shop runs its own. */
export const demoAccounts = (): typeof people => (setting('HACIENDA_DEMO') ? people : []);
