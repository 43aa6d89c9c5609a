import { codesFor, followLabel } from '../../../services/labels';
import { serve } from '../../_http';

export const GET = serve('followLabel', ({ query: { code } }) => followLabel(code));
export const POST = serve('label', ({ body: { targets }, who }) => codesFor(targets, who));
