import type { Confirmation } from '../confirmed';
import type { CarWrite, Header, Job, Observation } from '.';

/**
 * A job as it is kept: the header a person may correct, the observations in the order they were
 * recorded, each with the key its client made, the writes to the car, and what its parts turned out to be.
 */
export interface JobRecord {
  header: Header;
  entries: Entry[];
  writes: CarWrite[];
  confirmations: Confirmation[];
}

export interface Entry {
  key: string;
  observation: Observation;
  /** The key of the entry this one puts right. */
  replaces?: string;
}

/** The open job file of a record. What was corrected stands apart, so that no reader judges by it. */
export function toJobFile({ header, entries, writes, confirmations }: JobRecord): Job {
  const replacedBy = new Map(entries.flatMap(({ key, replaces }) => (replaces ? [[replaces, key]] : [])));
  const withKey = ({ key, observation }: Entry): Observation => ({ ...observation, key });
  const corrected = entries.flatMap((entry) => {
    const by = replacedBy.get(entry.key);
    return by ? [{ replacedBy: by, observation: withKey(entry) }] : [];
  });
  return {
    ...header,
    observations: entries.filter(({ key }) => !replacedBy.has(key)).map(withKey),
    ...(corrected.length > 0 && { corrected }),
    ...(writes.length > 0 && { carWrites: writes }),
    ...(confirmations.length > 0 && { confirmations }),
  };
}

/** The inverse. A file of another program has no keys: `newKey` makes them. */
export function fromJobFile(job: Job, newKey: () => string): JobRecord {
  const { observations, corrected = [], carWrites = [], confirmations = [], ...header } = job;
  const entryOf = (observation: Observation): Entry => {
    const { key, ...bare } = observation;
    return { key: typeof key === 'string' ? key : newKey(), observation: bare as Observation };
  };
  const old = corrected.map(({ replacedBy, observation }) => ({ ...entryOf(observation), replacedBy }));
  const replacedByKey = new Map(old.map(({ replacedBy, key }) => [replacedBy, key]));
  const withReplaces = (entry: Entry): Entry => {
    const replaces = replacedByKey.get(entry.key);
    return replaces ? { ...entry, replaces } : entry;
  };
  return {
    header,
    entries: [
      ...old.map(({ key, observation }) => withReplaces({ key, observation })),
      ...observations.map((observation) => withReplaces(entryOf(observation))),
    ],
    writes: carWrites,
    confirmations,
  };
}
