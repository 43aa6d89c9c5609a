import { suggestFollowUps } from '../../../../services/follow-ups';
import { serve } from '../../../_http';

export const GET = serve('suggestFollowUps', ({ id }) => suggestFollowUps(id));
