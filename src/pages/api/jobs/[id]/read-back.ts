import { readBack } from '../../../../services/car';
import { serve } from '../../../_http';

/** `write` is the key of the write to read back. */
export const POST = serve('readBack', ({ id, body, who }) => readBack(id, body.write, who));
