import type { Header } from '.';
import type { VisitNotes } from './notes';

/** Extension keys of ours in a job file: who, when, and what the customer said. */

export const notesOf = (job: Pick<Header, 'visit'>): VisitNotes => job.visit ?? {};

export const plateOf = (job: Pick<Header, 'vehicle'>): string => job.vehicle.plate ?? '';

/** The name of the vehicle's profile, where it has one. */
export const profileOf = (job: Pick<Header, 'vehicle'>): string | undefined => job.vehicle.profile;
