import { useState, useSyncExternalStore } from 'react';
import { v7 } from 'uuid';
import { mayPass } from '../contract/refusals';
import type { Problem, Result } from '../core/result';

/**
 * What a press does through the shop, once: it has a key, and keeps it as long as nobody knows whether the shop has done
 * it, so that a second press is the same deed. While one is under way another press does nothing.
 */
export interface Deeds {
  /**
   * Does one thing. `of` names what is meant: the same words, the same deed, whatever else was typed since. Undefined where
   * another is under way.
   */
  once: <Answer>(
    of: string,
    send: (key: string) => Promise<Result<Answer>>,
    what?: string,
  ) => Promise<Result<Answer> | undefined>;
  state: () => DeedsState;
  subscribe: (callback: () => void) => () => void;
  setProblem: (next: (now: Problem | undefined) => Problem | undefined) => void;
}

export interface DeedsState {
  /** What is under way, in words. */
  busy: string | undefined;
  /** Why the last one was not done, or not known to be. */
  problem: Problem | undefined;
}

export function createDeeds(newKey: () => string = v7): Deeds {
  const keys = new Map<string, string>();
  const listeners = new Set<() => void>();
  let state: DeedsState = { busy: undefined, problem: undefined };
  const show = (next: Partial<DeedsState>) => {
    state = { ...state, ...next };
    for (const listener of listeners) listener();
  };
  return {
    once: async (of, send, what = 'Saving…') => {
      if (state.busy !== undefined) return undefined;
      show({ busy: what, problem: undefined });
      const key = keys.get(of) ?? newKey();
      keys.set(of, key);
      const answer = await send(key);
      if (answer.ok || !mayPass(answer.problem)) keys.delete(of);
      show({ busy: undefined, ...(!answer.ok && { problem: answer.problem }) });
      return answer;
    },
    state: () => state,
    subscribe: (callback) => {
      listeners.add(callback);
      return () => listeners.delete(callback);
    },
    setProblem: (next) => show({ problem: next(state.problem) }),
  };
}

/** The deeds of one screen. */
export function useDeeds(): Pick<Deeds, 'once' | 'setProblem'> & DeedsState {
  const [deeds] = useState(() => createDeeds());
  const { busy, problem } = useSyncExternalStore(deeds.subscribe, deeds.state, deeds.state);
  return { once: deeds.once, setProblem: deeds.setProblem, busy, problem };
}
