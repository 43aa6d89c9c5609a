/** What the command line says to a person: what happened and what to do. Nothing of a stack. */
export class Trouble extends Error {}

export const say = (text: string): void => void process.stdout.write(`${text}\n`);

/** Runs a command's work; a Trouble becomes its sentence and exit status 1. */
export async function orSentence(work: () => Promise<number>): Promise<number> {
  try {
    return await work();
  } catch (error) {
    if (!(error instanceof Trouble)) throw error;
    process.stderr.write(`${error.message}\n`);
    return 1;
  }
}

/** Why a text is no JSON, with the place where it stops being it, in our own words. */
export function notJson(text: string, error: unknown): string {
  const [, position] = /position (\d+)/.exec(error instanceof Error ? error.message : '') ?? [];
  if (position === undefined) return 'not JSON: it ends too soon';
  const before = text.slice(0, Number(position)).split('\n');
  return `not JSON, from line ${before.length}, character ${(before.at(-1)?.length ?? 0) + 1} on`;
}
