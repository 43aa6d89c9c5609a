import { success } from '../../../core/result';
import { addFollowUp, dueFollowUps } from '../../../services/follow-ups';
import { serve } from '../../_http';

export const GET = serve('followUps', async () => success(await dueFollowUps()));
export const POST = serve('addFollowUp', ({ body, who }) => addFollowUp(body, who));
