import type { APIRoute } from 'astro';
import { z } from 'zod';
import { contracts } from '../../../contract';
import { assessmentSchema } from '../../../core/assessment/schema';
import { procedureSchema } from '../../../core/relearn/procedure/schema';
import { jobSchema } from '../../../core/job/schema';
import { unknownSchema } from '../../../contract/refusals';
import { json, respond } from '../../_http';

const schemas = {
  job: jobSchema,
  assessment: assessmentSchema,
  profile: contracts.saveProfiles.body,
  procedure: procedureSchema,
};
const isName = (name: string): name is keyof typeof schemas => Object.hasOwn(schemas, name);

export const GET: APIRoute = ({ params: { name = '' } }) =>
  isName(name) ? json(z.toJSONSchema(schemas[name], { io: 'input' })) : respond(unknownSchema());
