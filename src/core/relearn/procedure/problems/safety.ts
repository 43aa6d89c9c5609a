import type { Step } from '..';

/** What watches over the tires, by any of the names it goes by in a menu or on a switch. */
const monitoring =
  /\b(tpms|rdks|monitor(ing)?|tell-?tale|tire pressures?|pressure (lamp|system|sensors?)|(?<!hazard )warnings?)\b/;
const off = /\b(off|disabled?|deactivated?|inactive|suppress(ed)?|out of service)\b/;
/** What a switch is set to that says the same. */
const offSet = /^(no|false|0|none)$/;

/** Whether a step switches off what watches over the tires: a relearn never needs that. */
export function switchesMonitoringOff(step: Step): boolean {
  switch (step.do) {
    case 'set':
      return (
        isOff(`${step.what} ${step.to}`) || (monitoring.test(plain(step.what)) && offSet.test(plain(step.to)))
      );
    case 'press':
    case 'hold':
      return isOff(step.what);
    case 'menu':
      return isOff(step.path.join(' '));
    default:
      return false;
  }
}

const isOff = (words: string): boolean => monitoring.test(plain(words)) && off.test(plain(words));
const plain = (words: string): string =>
  words
    .toLowerCase()
    .replace(/[-_\s]+/g, ' ')
    .trim();
