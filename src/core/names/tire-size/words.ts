import type { Fit, FitVerdict } from '.';

const verdicts: Record<FitVerdict, string> = {
  same: 'The size the placard names.',
  fits: 'Another size that fits.',
  'rolls-differently': 'Rolls differently.',
  'other-rim': 'Rolls alike, on another rim.',
  'carries-too-little': 'Carries too little: do not leave it on.',
  'wants-more-pressure': 'Carries too little at this pressure: it wants more.',
};

/** A fit in plain words: the verdict, whether it is good, and the figures behind it. */
export function fitWords(
  fit: Fit,
  atPressure?: string,
): { verdict: string; good: boolean; details: string[] } {
  const percent = (share: number) => `${Math.abs(share * 100).toFixed(1)} %`;
  const speed = fit.trueAt100 - 100;
  const { placard, fitted } = fit.capacityKg;
  const at = atPressure ? ` at ${atPressure}` : '';
  const details = [
    Math.abs(fit.diameterShare) < 0.0005
      ? 'As large as the placard’s'
      : `${percent(fit.diameterShare)} ${fit.diameterShare > 0 ? 'larger' : 'smaller'} across`,
    Math.abs(speed) < 0.05
      ? 'speedometer as before'
      : `at 100 on the dash it does ${fit.trueAt100.toFixed(1)}`,
    fit.load === 'unknown'
      ? fitted === undefined
        ? 'load not known: type its load index'
        : `carries ${Math.round(fitted)} kg${at}; the placard names no load index to compare with`
      : `carries ${Math.round(fitted ?? 0)} kg${at}, ${fit.load === 'enough' ? 'enough for' : 'less than'} the ${Math.round(placard ?? 0)} kg of the placard’s tire`,
    ...(fit.speed === 'too-little' ? ['its speed symbol is lower than the placard’s'] : []),
  ];
  const good =
    (fit.verdict === 'same' || fit.verdict === 'fits') &&
    fit.load !== 'too-little' &&
    fit.speed !== 'too-little';
  return { verdict: verdicts[fit.verdict], good, details };
}
