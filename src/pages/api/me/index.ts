import { success } from '../../../core/result';
import { chooseUnits } from '../../../services/people';
import { serve } from '../../_http';

const yearSeconds = 365 * 86_400;

export const PATCH = serve('me', async ({ body: { units, theme }, who, context: { cookies } }) => {
  if (units !== undefined) await chooseUnits(who, units);
  if (theme === 'system') cookies.delete('theme', { path: '/' });
  else if (theme) cookies.set('theme', theme, { path: '/', sameSite: 'strict', maxAge: yearSeconds });
  return success({ ok: true as const });
});
