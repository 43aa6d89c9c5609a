import type { IncomingMessage } from 'node:http';
import { isIP } from 'node:net';
import proxyAddr from 'proxy-addr';

/** How the shop is reached, as its operator says. */
export interface Doors {
  /** Whether a request that asks for this host is meant for this shop. */
  admits: (host: string | undefined) => boolean;
  /**
   * Leaves of a request only what may be believed: what is said of where it came from counts from the operator's own
   * proxies alone. Returns the address it came from.
   */
  settle: (request: IncomingMessage) => string;
}

interface Said {
  /** Names it is reached under, without ports: `tires.example`. */
  names?: readonly string[] | undefined;
  /** Proxies in front of it: addresses, subnets, or `loopback`, `uniquelocal`. */
  proxies?: readonly string[] | undefined;
}

const forwarding = [
  'forwarded',
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-port',
  'x-forwarded-proto',
  'x-real-ip',
] as const;

/** Throws where a proxy is no address: a mistyped one must not go unnoticed. */
export function doorsOf({ names = [], proxies = [] }: Said): Doors {
  const known = new Set(['localhost', ...names.map((name) => name.toLowerCase())]);
  const trusted = proxyAddr.compile(proxies.map((proxy) => proxy.toLowerCase()));
  return {
    // Another site can have its own name lead here, and would be let in under it; an address it cannot have.
    admits: (host) => {
      if (host === undefined || !URL.canParse(`http://${host}`)) return false;
      const name = new URL(`http://${host}`).hostname.replace(/^\[|\]$/g, '');
      return isIP(name) !== 0 || known.has(name) || name.endsWith('.localhost');
    },
    settle: (request) => {
      const address = proxyAddr(request, trusted) ?? request.socket.remoteAddress ?? '';
      for (const name of forwarding) delete request.headers[name];
      request.headers['x-forwarded-for'] = address;
      return address;
    },
  };
}
