import { useCallback, useEffect, useRef, useState } from 'react';
import { openStep, phaseOf, presentWheel, stepClock, type Run } from '../../core/relearn/run';
import { stepWords } from '../../core/relearn/procedure/words';
import { noteWords, stateWords } from '../../core/relearn/run/words';
import type { Procedure } from '../../core/relearn/procedure';
import { positionName } from '../../core/names/wheel';
import { playCue, tick } from './sounds';
import type { RunOnScreen } from './use-run';

const place = 'hacienda.aloud';
/** The last seconds of a window are counted. */
const countedS = 5;

export interface Aloud {
  on: boolean;
  toggle: () => void;
  /** Plays what a simulated car says. */
  play: (cue: string) => void;
}

/** Says each step and what went wrong, ticks the last seconds of a clock, and buzzes in the hand. */
export function useAloud({ procedure, run }: RunOnScreen): Aloud {
  const [on, setOn] = useState(true);
  useEffect(() => {
    // eslint-disable-next-line react-hooks/set-state-in-effect -- the browser's storage exists from here on
    setOn(localStorage.getItem(place) !== 'off');
  }, []);
  const toggle = () => {
    localStorage.setItem(place, on ? 'off' : 'on');
    setOn(!on);
  };

  const sentence = spoken(procedure, run);
  const before = useRef(sentence);
  useEffect(() => {
    if (before.current === sentence) return;
    before.current = sentence;
    navigator.vibrate?.(60);
    if (on) say(sentence);
  }, [sentence, on]);

  const left = secondsThatCount(procedure, run);
  useEffect(() => {
    if (left === undefined) return;
    navigator.vibrate?.(20);
    if (on) tick(left === 0);
  }, [left, on]);

  const play = useCallback((cue: string) => on && playCue(cue), [on]);
  return { on, toggle, play };
}

/** What is said now: a note goes before the step, the wheel before what to do at it. */
function spoken(procedure: Procedure, run: Run): string {
  const notes = run.notes.map((note) => noteWords[note].means);
  const phase = phaseOf(run);
  const step = openStep(procedure, run);
  if (!phase || !step) return [...notes, stateWords[run.state]].join(' ');
  const wheel = presentWheel(procedure, run);
  const where = wheel && run.step === 0 ? [`${positionName[wheel]}.`] : [];
  return [...notes, ...where, stepWords(procedure, phase, step)].join(' ');
}

/** Whole seconds to the least or the most of the open step's clock, where they are few; each is counted once. */
function secondsThatCount(procedure: Procedure, run: Run): number | undefined {
  const clock = stepClock(procedure, run);
  if (!clock) return undefined;
  const { elapsedS, leastS, mostS } = clock;
  const goal = leastS !== undefined && elapsedS < leastS ? leastS : mostS;
  if (goal === undefined) return undefined;
  const left = Math.floor(goal - elapsedS);
  return left >= 0 && left <= countedS ? left : undefined;
}

function say(sentence: string): void {
  if (!('speechSynthesis' in window)) return;
  window.speechSynthesis.cancel();
  window.speechSynthesis.speak(new SpeechSynthesisUtterance(sentence));
}
