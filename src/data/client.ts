import pg from 'pg';

/** One connection of its own, for work beside the pools; closed when it is done. */
export async function connectedTo<Value>(
  url: string,
  work: (client: pg.Client) => Promise<Value>,
): Promise<Value> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}
