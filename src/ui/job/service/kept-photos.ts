import { del, delMany, get, keys, set } from 'idb-keyval';

/**
 * Pictures of printed IDs on this device, as data URLs: one that was taken and is not in the shop yet, and those that
 * were looked at, so that they can be read where the network does not reach. A browser that keeps nothing goes without.
 */
const draft = (jobId: string, wheel: string) => `photo draft ${jobId} ${wheel}`;
const ofService = (key: string) => `photo ${key}`;

/** So many of the latest stay; the shop has all. */
const mostKept = 60;

export const keepDraft = (jobId: string, wheel: string, photo: string): Promise<void | undefined> =>
  quietly(() => set(draft(jobId, wheel), photo));

export const draftOf = (jobId: string, wheel: string): Promise<string | undefined> =>
  quietly(() => get<string>(draft(jobId, wheel)));

export const dropDraft = (jobId: string, wheel: string): Promise<void | undefined> =>
  quietly(() => del(draft(jobId, wheel)));

/** The picture of a service: as it was kept here, else from the shop, and kept. Undefined where neither has it now. */
export async function photoOf(key: string): Promise<string | undefined> {
  const here = await quietly(() => get<string>(ofService(key)));
  if (here) return here;
  const photo = await fetch(`/api/photos/${key}`)
    .then((answer) => (answer.ok ? answer.blob() : undefined))
    .then((blob) => blob && dataUrl(blob))
    .catch(() => undefined);
  if (photo) await quietly(() => keep(key, photo));
  return photo;
}

async function keep(key: string, photo: string): Promise<void> {
  await set(ofService(key), photo);
  // A service's key tells its time: the oldest come first.
  const kept = (await keys<string>()).filter((name) => /^photo [0-9a-f-]+$/.test(name)).sort();
  await delMany(kept.slice(0, -mostKept));
}

const dataUrl = (blob: Blob): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(reader.error ?? new Error('The picture cannot be read.'));
    reader.readAsDataURL(blob);
  });

/** Private windows and full disks keep nothing: that costs the convenience, no record. */
async function quietly<Value>(work: () => Promise<Value>): Promise<Value | undefined> {
  try {
    return await work();
  } catch {
    return undefined;
  }
}
