import type { APIRoute } from 'astro';
import { z } from 'zod';
import { failure } from '../../../../core/outcome';
import {
  climateSchema,
  fittedSchema,
  loadCaseSchema,
  placardSchema,
  repairsSchema,
  serviceSchema,
} from '../../../../core/job/schema';
import { editJob, viewJob } from '../../../../services/jobs';
import { getOfJob, key, personOf, problemResponse, readBody, respond } from '../../../_http';

export const GET = getOfJob(async (id) => respond(await viewJob(id)));

const edit = z.object({
  key,
  version: z.int().min(1),
  changes: z.strictObject({
    placard: placardSchema.optional(),
    loadCase: loadCaseSchema.optional(),
    fitted: fittedSchema.optional(),
    repairs: repairsSchema.optional(),
    service: serviceSchema.optional(),
    climate: climateSchema.optional(),
    odometerKm: z.number().min(0).max(3_000_000).optional(),
    complaint: z.string().max(2000).optional(),
  }),
});

export const PATCH: APIRoute = async (context) => {
  const body = await readBody(context.request, edit);
  if (!body.ok) return problemResponse(body.problem);
  const id = z.uuid().safeParse(context.params.id);
  return respond(
    id.success
      ? await editJob(id.data, body.value, personOf(context))
      : failure('unknown-job', 'There is no such job. Go back to the Yard and pick it there.'),
  );
};
