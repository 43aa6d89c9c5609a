import { LRUCache } from 'lru-cache';
import type { Person } from '../core/visit/person';
import { newsComeThrough, onPeople } from '../data/notifications';

/**
 * Who is signed in, between two requests of theirs: half of all the database was asked was this. It is forgotten as soon
 * as a session ends, an account changes or the shop is set otherwise, of which the database tells every process; while
 * its news do not come through, it is asked every time.
 */
interface SignedInUntil {
  person: Person;
  expiresAt: Date;
}

/** News that are lost on their way, on a connection that hangs, do no harm for longer than this, ms. */
const longestMs = 5_000;

const known = new LRUCache<string, SignedInUntil>({ max: 2_000, ttl: longestMs });
/** What was read before all was forgotten is not kept after it. */
let era = 0;
let isTold = false;

function forgetAll(): void {
  era += 1;
  known.clear();
}

/** The person a session belongs to: as it was read last, or as `read` finds it. */
export async function rememberedPerson(
  tokenHash: string,
  read: () => Promise<SignedInUntil | undefined>,
): Promise<Person | undefined> {
  if (!isTold) onPeople(forgetAll);
  isTold = true;
  const there = known.get(tokenHash);
  if (there && newsComeThrough() && there.expiresAt.getTime() > Date.now()) return there.person;
  const readIn = era;
  const found = await read();
  if (found && readIn === era && newsComeThrough()) known.set(tokenHash, found);
  return found?.person;
}
