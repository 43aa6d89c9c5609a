/** A day as a list shows it, by the place where it is read. */
export const day = (at: string): string =>
  new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium' }).format(new Date(at));

/** A day and its minute, likewise. */
export const dayAndTime = (at: string): string =>
  new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' }).format(new Date(at));
