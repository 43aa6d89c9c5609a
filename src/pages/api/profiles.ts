import type { APIRoute } from 'astro';
import { z } from 'zod';
import { listProfiles, profileSchema, saveProfiles } from '../../services/vehicles';
import { json, post } from '../_http';

export const GET: APIRoute = async () => json(await listProfiles());
export const POST = post(z.array(profileSchema).min(1).max(500), (profiles, who) =>
  saveProfiles(profiles, who),
);
