import type { APIRoute } from 'astro';
import { z } from 'zod';
import { assessmentSchema } from '../../../core/assessment/schema';
import { jobSchema } from '../../../core/job/schema';
import { json, problemResponse } from '../../_http';

const schemas = { job: jobSchema, assessment: assessmentSchema };

export const GET: APIRoute = ({ params }) => {
  const { name } = params;
  return name === 'job' || name === 'assessment'
    ? json(z.toJSONSchema(schemas[name], { io: 'input' }))
    : problemResponse({ code: 'unknown-schema', message: 'There are two schemas: job and assessment.' });
};
