import { weather } from '../../services/weather';
import { serve } from '../_http';

export const GET = serve('weather', () => weather());
