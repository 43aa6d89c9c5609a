import type { Result } from '../../core/result';
import type { WriteAnswer } from '../vehicle/port';

/** What the app asks of a cradle in which a universal sensor is programmed. Every wait is bounded. */
export interface Programmer {
  /** What lies in it, and what each of them is now. */
  read: () => Promise<Result<InCradle[]>>;
  /** Whether it worked is another matter: read it back. */
  program: (asked: Programming) => Promise<WriteAnswer>;
}

export interface Programming {
  id: string;
  family: string;
  frequencyMHz: number;
}

export interface InCradle {
  serial?: string | undefined;
  /** The article it is one of, where it tells. */
  part?: string | undefined;
  /** What it can be programmed for. */
  formats: { family: string; frequencyMHz: number }[];
  /** What it is; null while it is blank. */
  id: string | null;
  family: string | null;
  frequencyMHz: number | null;
  battery?: 'ok' | 'low' | undefined;
  /** So often it can still be programmed, where it tells. */
  writesLeft?: number | undefined;
}
