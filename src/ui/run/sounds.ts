/** Sounds of the run: ticks of its clocks, and what a simulated car says. A browser that has no sound stays silent. */

let audio: AudioContext | undefined;

/** A browser lets a page sound only after somebody touched it. */
function context(): AudioContext | undefined {
  if (!('AudioContext' in window)) return undefined;
  audio ??= new AudioContext();
  if (audio.state === 'suspended') void audio.resume();
  return audio;
}

interface Tone {
  hz: number;
  /** From now, and for so long, s. */
  afterS: number;
  lastsS: number;
  shape: OscillatorType;
}

function sound(tones: readonly Tone[]): void {
  const out = context();
  if (!out) return;
  for (const { hz, afterS, lastsS, shape } of tones) {
    const oscillator = out.createOscillator();
    const volume = out.createGain();
    const from = out.currentTime + afterS;
    oscillator.type = shape;
    oscillator.frequency.value = hz;
    volume.gain.setValueAtTime(0.2, from);
    volume.gain.exponentialRampToValueAtTime(0.001, from + lastsS);
    oscillator.connect(volume).connect(out.destination);
    oscillator.start(from);
    oscillator.stop(from + lastsS);
  }
}

/** A second gone by; the last one higher and longer. */
export const tick = (last: boolean): void =>
  sound([{ hz: last ? 1320 : 880, afterS: 0, lastsS: last ? 0.3 : 0.06, shape: 'sine' }]);

/** A cue as often as it says: low for a horn, a click for lamps, a chime for a message. */
export function playCue(cue: string): void {
  const times = Math.min(9, Number(/\d+/.exec(cue)?.[0] ?? 1));
  const voice = /horn/i.test(cue)
    ? ({ hz: 350, lastsS: 0.3, shape: 'sawtooth' } as const)
    : /hazard|lamp/i.test(cue)
      ? ({ hz: 2000, lastsS: 0.03, shape: 'square' } as const)
      : ({ hz: 660, lastsS: 0.4, shape: 'sine' } as const);
  sound(Array.from({ length: times }, (_, at) => ({ ...voice, afterS: at * 0.45 })));
}
