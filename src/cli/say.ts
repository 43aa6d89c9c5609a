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
