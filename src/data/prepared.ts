import { createHash } from 'node:crypto';
import pg from 'pg';

/**
 * The driver, so that a statement with parameters is prepared under a name: the database reads and plans it once for
 * each connection, not each time it is asked.
 */

/** Texts beyond so many are asked as they come: each prepared one stays with the database as long as its connection. */
const mostPrepared = 300;

const names = new Map<string, string>();

/** The name of a statement; undefined where it is not prepared. */
function nameOf(text: string): string | undefined {
  const known = names.get(text);
  if (known !== undefined || names.size >= mostPrepared) return known;
  const name = createHash('sha256').update(text).digest('hex').slice(0, 32);
  names.set(text, name);
  return name;
}

type Ask = (...asked: unknown[]) => unknown;

class PreparingClient extends pg.Client {
  constructor(config?: string | pg.ClientConfig) {
    super(config);
    const ask = this.query.bind(this) as Ask;
    const prepared: Ask = (text, values, ...rest) => {
      const name = typeof text === 'string' && Array.isArray(values) ? nameOf(text) : undefined;
      return name === undefined ? ask(text, values, ...rest) : ask({ name, text, values }, ...rest);
    };
    this.query = prepared as typeof this.query;
  }
}

export const preparing: typeof pg = Object.assign(Object.create(pg) as typeof pg, {
  Client: PreparingClient,
});
