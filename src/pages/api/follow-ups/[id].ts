import { endFollowUp } from '../../../services/follow-ups';
import { serve } from '../../_http';

export const POST = serve('endFollowUp', ({ id, body, who }) => endFollowUp(id, body, who));
