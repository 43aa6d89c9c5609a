import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from '../../src/cli/free-port';
import { wipe } from '../../src/cli/cluster';
import { loadDemo } from '../../src/cli/demo-data';
import { startInstance, type Instance } from '../../src/cli/instance';
import people from '../../demo/people.json' with { type: 'json' };

/** A whole shop of the tests' own: database, simulated devices, built server. */
export interface Shop extends Instance {
  port: number;
  close: () => Promise<void>;
}

/** `cars`: the simulated ones, where not those of the demo. `devices` false: there is none, neither tool nor lead nor car nor weather. */
export async function openShop({
  cars,
  devices = true,
  processes = 1,
  environment = {},
  databaseUrl,
  prepare = loadDemo,
  shop,
  headOffice,
}: {
  cars?: object[];
  devices?: boolean;
  processes?: number;
  environment?: Record<string, string>;
  /** A database that is there: of a chain, or with a shop in it already. */
  databaseUrl?: string;
  /** Fills it. */
  prepare?: (folder: string) => Promise<void>;
  shop?: string;
  headOffice?: boolean;
} = {}): Promise<Shop> {
  const folder = mkdtempSync(join(tmpdir(), 'hacienda-shop-'));
  const file = join(folder, 'some-cars.json');
  if (cars) writeFileSync(file, JSON.stringify(cars));
  const port = await freePort();
  const instance = await startInstance({
    folder,
    port,
    demo: true,
    devices,
    prepare,
    ...(cars && { cars: file }),
    processes,
    ...(databaseUrl && { databaseUrl }),
    ...(shop && { shop }),
    ...(headOffice && { headOffice }),
    environment,
  });
  return Object.assign(instance, {
    port,
    close: async () => {
      await instance.stop();
      wipe(folder);
    },
  });
}

/** Somebody signed in, asking the shop over HTTP. */
export class Client {
  private constructor(
    private readonly address: string,
    private readonly cookie: string,
  ) {}

  /** With the cookie of a sign-in that was made by hand. */
  static with(address: string, setCookie: string): Client {
    return new Client(address, setCookie.split(';')[0] ?? '');
  }

  static async signIn(
    address: string,
    role: 'technician' | 'adviser' | 'manager' = 'technician',
  ): Promise<Client> {
    const who = people.find((person) => person.role === role);
    const response = await fetch(`${address}/api/sign-in`, {
      method: 'POST',
      headers: { origin: address, 'content-type': 'application/json' },
      body: JSON.stringify(who),
    });
    if (!response.ok) throw new Error(`sign-in: ${response.status} ${await response.text()}`);
    return new Client(address, response.headers.get('set-cookie')?.split(';')[0] ?? '');
  }

  at(address: string): Client {
    return new Client(address, this.cookie);
  }

  /** Who asks, and from where, as a browser says it. */
  headers(): Record<string, string> {
    return { cookie: this.cookie, origin: this.address };
  }

  fetch(path: string, init: RequestInit = {}): Promise<Response> {
    return fetch(this.address + path, { ...init, headers: { ...this.headers(), ...init.headers } });
  }

  async get<Value>(path: string): Promise<Value> {
    const response = await this.fetch(path);
    if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
    return (await response.json()) as Value;
  }

  send(method: string, path: string, body: unknown, signal: AbortSignal | null = null): Promise<Response> {
    return this.fetch(path, {
      method,
      signal,
      headers: { 'content-type': 'application/json' },
      body: typeof body === 'string' ? body : JSON.stringify(body),
    });
  }

  async post<Value>(path: string, body: unknown): Promise<Value> {
    const response = await this.send('POST', path, body);
    if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`);
    return (await response.json()) as Value;
  }
}
