import type { APIRoute } from 'astro';
import { z } from 'zod';
import { unitChoiceSchema } from '../../core/units/schema';
import { chooseUnits } from '../../services/people';
import { json, personOf, problemResponse, readBody } from '../_http';

const choice = z.object({
  /** Null: as the shop. */
  units: unitChoiceSchema.nullable().optional(),
  theme: z.enum(['light', 'dark', 'system']).optional(),
});

const yearSeconds = 365 * 86_400;

export const PATCH: APIRoute = async (context) => {
  const body = await readBody(context.request, choice);
  if (!body.ok) return problemResponse(body.problem);
  const { units, theme } = body.value;
  if (units !== undefined) await chooseUnits(personOf(context), units);
  if (theme === 'system') context.cookies.delete('theme', { path: '/' });
  else if (theme) context.cookies.set('theme', theme, { path: '/', sameSite: 'strict', maxAge: yearSeconds });
  return json({ ok: true });
};
