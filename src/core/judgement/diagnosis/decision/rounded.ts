/** A figure as it is told, without the noise of its last digits: what comes to the same ranks alike, in walking order. */
export const rounded = (figure: number): number => Math.round(figure * 1e12) / 1e12;
