import { z } from 'zod';

/** Text of a form, without the blanks around it. */
export const text = z.string().trim();

/** A figure as it is typed, with a point or a comma, and a minus of either kind; nothing typed is nothing known. `say`: what is said where it does not fit. */
export const figureOrEmpty = (say: string, fits: (figure: number) => boolean) =>
  text.transform((typed, context) => {
    if (typed === '') return undefined;
    const figure = Number(typed.replace(',', '.').replace('−', '-'));
    if (fits(figure)) return figure;
    context.addIssue({ code: 'custom', message: say });
    return z.NEVER;
  });

/** The same, where something must be typed. */
export const figureTyped = (say: string, fits: (figure: number) => boolean) =>
  figureOrEmpty(say, fits).transform((figure, context) => {
    if (figure !== undefined) return figure;
    context.addIssue({ code: 'custom', message: say });
    return z.NEVER;
  });
