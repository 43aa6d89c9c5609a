import { lookIntoBox } from '../../../services/practice';
import { serve } from '../../_http';

export const GET = serve('practiceBox', () => lookIntoBox());
