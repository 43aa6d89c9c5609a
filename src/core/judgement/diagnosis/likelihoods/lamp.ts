import type { Context, Evidence } from '../evidence';
import { type Cause, causeCount, causeIndex, causes, zeros } from '../hypotheses';
import { model } from '../model';

/** Likelihood of the lamp as it was seen, by the worst cause it has; `dark`: of a lamp that cannot light. */
export interface LampLikelihood {
  byCause: number[];
  dark: number;
}

export function lampLikelihood({ context, car }: Evidence): LampLikelihood {
  const { lamp, lampStale, warned, codes } = car;
  const byCause = zeros(causeCount).fill(1);
  if (context.job.vehicle.tpms.kind === 'none') return { byCause, dark: 1 };
  for (const about of ['no-signal', 'low-pressure'] as const) {
    const code = codes.find((candidate) => candidate.about === about);
    if (!code) continue;
    const { cause, none } = model.codes[about];
    const blamed = about === 'no-signal' ? causeIndex.malfunction : causeIndex.low;
    byCause.forEach((value, at) => (byCause[at] = value * (at === blamed ? cause : none) ** code.weight));
  }
  if (!lamp) return { byCause, dark: 1 };
  const { missingSound, missingDark, darkSeenOff } = model.bulbCheck;
  const check = lamp.bulbCheck;
  const sound = check === undefined ? 1 : check ? 1 - missingSound : missingSound;
  const dark =
    (check === undefined ? 1 : check ? 1 - missingDark : missingDark) *
    (lamp.state === 'off' ? darkSeenOff : (1 - darkSeenOff) / 3);
  const shown = causes.map((cause) => rowOf(context, cause)[lamp.state]);
  // A warning of heat, or of air going fast, looks like that of a low tire.
  const warning = rowOf(context, 'low')[lamp.state];
  causes.forEach((cause, at) => {
    if (cause !== 'malfunction') shown[at] = (1 - warned) * (shown[at] ?? 0) + warned * warning;
  });
  // What the lamp said of a car that has been changed since says nothing of the car as it is.
  const spokeOfIds = lamp.state === 'flash-then-steady' || lamp.state === 'flash-while-driving';
  const comparesAnew = context.job.vehicle.tpms.kind === 'indirect';
  if (lampStale.registration && (spokeOfIds || comparesAnew)) shown.fill(1);
  if (lampStale.air && lamp.state === 'steady') {
    const most = Math.max(...shown);
    causes.forEach((cause, at) => {
      if (cause !== 'malfunction') shown[at] = most;
    });
  }
  causes.forEach((_, at) => (byCause[at] = (byCause[at] ?? 1) * sound * (shown[at] ?? 1)));
  return { byCause, dark };
}

function rowOf(
  { job }: Context,
  cause: Cause,
): Record<'off' | 'steady' | 'flash-then-steady' | 'flash-while-driving', number> {
  if (job.vehicle.tpms.kind === 'direct') return model.telltale[cause];
  switch (cause) {
    case 'between-on-and-off':
      return model.indirectLamp['odd-radius'];
    case 'intermittent':
      return model.indirectLamp.baseline;
    case 'malfunction':
      return model.indirectLamp['wheel-speed'];
    case 'low':
    case 'nothing':
      return model.telltale[cause];
  }
}
