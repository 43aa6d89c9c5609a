import type { Result } from '../../../../core/result';
import type { PracticeCar, VisitView } from '../../../../core/visit/view';
import { drive, fitSensor, layInCradle, letNightPass, lookAt, setAir } from '../../../../services/practice';
import { serve } from '../../../_http';

export const GET = serve('practiceCar', ({ id }) => lookAt(id));

export const POST = serve('practise', ({ id, body, who }): Promise<Result<PracticeCar | VisitView>> => {
  switch (body.do) {
    case 'drive':
      return drive(id, body.key, who);
    case 'night':
      return letNightPass(id, body.celsius);
    case 'air':
      return setAir(id, body.wheel, body.kPa);
    case 'fit':
      return fitSensor(id, body.wheel, body.serial);
    case 'cradle':
      return layInCradle(id, body.serials);
  }
});
