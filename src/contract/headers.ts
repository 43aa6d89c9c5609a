/** What goes with requests and answers beside their bodies. */

/** Names the person an entry was made by, where it may have waited on a device that somebody else uses by now. */
export const personHeader = 'x-hacienda-person';

/** Names the shop's time in every answer, ms since 1970: a device learns from it how far its own clock is off. */
export const nowHeader = 'x-hacienda-now';
