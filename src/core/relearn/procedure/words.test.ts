import { describe, expect, it } from 'vitest';
import type { Step } from '.';
import { procedureSchema } from './schema';
import { conditionWords, secondsWords, stepWords } from './words';

const procedure = procedureSchema.parse({
  format: 'hacienda.procedure/1',
  name: 'made-up',
  title: 'Made up',
  method: 'tool',
  proof: ['lamp'],
  cues: [
    { cue: 'horn 1', during: 'each', means: 'accepted' },
    { cue: 'hazards 1', during: 'each', means: 'accepted' },
    { cue: 'horn 1', during: 'enter', means: 'entered' },
  ],
});
const words = (step: Step) => stepWords(procedure, 'each', step);

describe('a step in words', () => {
  it('says what hands do, how often, and in which time', () => {
    expect(words({ do: 'set', what: 'ignition', to: 'on' })).toBe('Ignition on');
    expect(words({ do: 'press', what: 'hazards', times: 3, withinS: 10 })).toBe(
      'Press hazards 3 times, within 10 s',
    );
    expect(words({ do: 'press', what: 'brake', times: 1 })).toBe('Press brake');
    expect(words({ do: 'hold', what: 'set-button', leastS: 4, mostS: 120 })).toBe(
      'Hold set button 4 s to 2 min',
    );
    expect(words({ do: 'hold', what: 'set-button', leastS: 4 })).toBe('Hold set button 4 s or longer');
    expect(words({ do: 'menu', path: ['Vehicle', 'Tires'] })).toBe('Choose Vehicle › Tires');
    expect(words({ do: 'drive', leastKmh: 40, leastS: 600, unbroken: true })).toBe(
      'Drive 10 min at 40 km/h or faster, without a break',
    );
  });

  it('names the cues of this car for what is waited for, of this phase alone', () => {
    expect(words({ do: 'cue', means: 'accepted', withinS: 20 })).toBe(
      'Wait for horn once or hazards once, 20 s at most: this wheel is learned',
    );
  });

  it('says minutes only where they are whole, and a condition of its own as it is written', () => {
    expect([90, 119, 120, 150, 600].map(secondsWords)).toEqual(['90 s', '119 s', '2 min', '150 s', '10 min']);
    expect(conditionWords('parking-brake')).toBe('Parking brake set');
    expect(conditionWords('doors-closed')).toBe('Doors closed');
  });
});
