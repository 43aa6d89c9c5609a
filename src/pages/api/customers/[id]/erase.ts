import { eraseCustomer } from '../../../../services/erasures';
import { serve } from '../../../_http';

export const POST = serve('eraseCustomer', ({ id, body, who }) => eraseCustomer(id, body.key, who));
