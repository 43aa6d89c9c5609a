import { addNote } from '../../../../services/jobs';
import { serve } from '../../../_http';

export const POST = serve('note', ({ id, body, who }) => addNote(id, body, who));
