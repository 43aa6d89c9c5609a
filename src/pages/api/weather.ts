import { weather } from '../../services/weather';
import { getOf } from '../_http';

export const GET = getOf(() => weather());
