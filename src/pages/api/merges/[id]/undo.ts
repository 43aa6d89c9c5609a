import { undoMerge } from '../../../../services/merges';
import { serve } from '../../../_http';

export const POST = serve('undoMerge', ({ id, who }) => undoMerge(id, who));
