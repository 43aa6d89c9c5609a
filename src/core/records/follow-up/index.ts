import type { Assessment } from '../../judgement/assessment';
import { findingsThatHold } from '../../judgement/assessment';
import { unexplainedDamage } from '../../tire/damage';
import type { Job } from '../../job';
import type { Position } from '../../names/wheel';
import { dayAfter } from '../../measure/calendar/spans';

/** What is to be looked at again, and when. */
export interface FollowUp {
  key: string;
  vehicleId: string;
  /** The visit it comes from. */
  jobId: string | null;
  number: number | null;
  about: FollowUpAbout;
  wheel: Position | null;
  note: string;
  /** A day, YYYY-MM-DD. */
  dueOn: string;
  by: string;
  ended: { at: string; by: string; outcome: 'done' | 'dropped'; word: string } | null;
}

/** A follow-up with whom to call. */
export interface DueFollowUp extends FollowUp {
  label: string;
  plate: string;
  customer: string | null;
  phone: string | null;
}

export const followUpAbout = ['leak', 'lamp', 'sensor', 'nuts', 'other'] as const;
export type FollowUpAbout = (typeof followUpAbout)[number];

export const aboutWords: Record<FollowUpAbout, string> = {
  leak: 'Gauge again for a leak',
  lamp: 'Ask whether the lamp stayed out',
  sensor: 'Offer the declined sensor again',
  nuts: 'Wheel nuts checked after 100 km',
  other: 'Other',
};

/** Days until each is due (common practice: a leak within a week, a sensor with the next season). */
const dueAfterDays: Record<Exclude<FollowUpAbout, 'other'>, number> = {
  leak: 7,
  lamp: 3,
  sensor: 150,
  nuts: 4,
};

/** One that a visit asks for; the person at the counter keeps it or not. */
export type Suggested = Pick<FollowUp, 'about' | 'wheel' | 'note' | 'dueOn'>;

/** What a visit is followed by without asking: a tire that was found low and only filled is read again within a week. */
export const owedFor = (job: Job, today: string): Suggested[] =>
  unexplainedDamage(job).flatMap(({ wheel, found }) =>
    found
      ? [
          {
            about: 'leak' as const,
            wheel,
            note: 'Found low and filled: nobody looked for a leak.',
            dueOn: dayAfter(today, dueAfterDays.leak),
          },
        ]
      : [],
  );

/** What a visit should be followed by, from what it found and left open. */
export function suggestedFor(job: Job, assessment: Assessment, today: string): Suggested[] {
  const due = (about: Exclude<FollowUpAbout, 'other'>) => dayAfter(today, dueAfterDays[about]);
  const held = findingsThatHold(assessment);
  const owed = owedFor(job, today);
  const leaking = held
    .flatMap(({ code, wheels }) => (code === 'tire-leaking' ? wheels : []))
    .filter((wheel) => !owed.some((one) => one.wheel === wheel));
  const isWaiting = held.some(({ code }) => code === 'waiting-for-drive');
  const declined = [
    ...(job.replacement?.declined ?? []),
    ...(job.sensorServices ?? []).flatMap(({ wheel, declined: word }) => (word ? [wheel] : [])),
  ];
  const about = (kind: Exclude<FollowUpAbout, 'other'>, wheel: Position | null, note = ''): Suggested => ({
    about: kind,
    wheel,
    note,
    dueOn: due(kind),
  });
  return [
    ...owed,
    ...leaking.map((wheel) => about('leak', wheel)),
    ...(isWaiting ? [about('lamp', null, 'The car had not yet heard all sensors.')] : []),
    ...[...new Set(declined)].map((wheel) => about('sensor', wheel, job.replacement?.note ?? '')),
  ];
}

/** How a follow-up stands on a day. */
export const standing = ({ dueOn, ended }: Pick<FollowUp, 'dueOn' | 'ended'>, today: string) =>
  ended ? ended.outcome : dueOn < today ? 'overdue' : dueOn === today ? 'today' : 'to come';
