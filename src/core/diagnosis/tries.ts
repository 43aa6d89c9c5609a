/** Silent tries with different triggers after which a wheel is taken for silent and left (common practice). */
export const silentAfterTries = 2;
