import { refuseUnless } from '../../../../services/people';
import { takeSecondFactorFrom } from '../../../../services/second-factor';
import { serve } from '../../../_http';

export const POST = serve(
  'takeSecondFactor',
  async ({ id, who }) => refuseUnless(who, 'manage-people') ?? (await takeSecondFactorFrom(who, id)),
);
