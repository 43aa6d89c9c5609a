import { success } from '../../../core/outcome';
import { addGauge, newGaugeSchema, register } from '../../../services/gauges';
import { getOf, post } from '../../_http';

export const GET = getOf(async () => success(await register()));
export const POST = post(newGaugeSchema, (gauge, who) => addGauge(gauge, who));
