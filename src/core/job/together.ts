/** How near in time things were seen that belong together. */

/** Readings of one stop: nobody drove in between (common practice). */
export const oneStopMinutes = 45;
export const oneStopMs = oneStopMinutes * 60_000;

/** Readings of one visit (judgement). */
export const oneVisitHours = 12;
export const oneVisitMs = oneVisitHours * 3_600_000;
