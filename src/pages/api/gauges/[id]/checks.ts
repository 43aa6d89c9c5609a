import { newCheckSchema, recordCheck } from '../../../../services/gauges';
import { postToGauge } from '../../../_http';

export const POST = postToGauge(newCheckSchema, (id, check, who) => recordCheck(id, check, who));
