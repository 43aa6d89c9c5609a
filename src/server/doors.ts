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
  /** Names it is reached under, comma-separated, without ports: `tires.example, desk.local`. */
  names?: string | undefined;
  /** Proxies in front of it, comma-separated: addresses, subnets, or `loopback`, `uniquelocal`. */
  proxies?: string | undefined;
}

const listed = (text = ''): string[] =>
  text
    .split(',')
    .map((part) => part.trim().toLowerCase())
    .filter((part) => part !== '');

const forwarding = [
  'forwarded',
  'x-forwarded-for',
  'x-forwarded-host',
  'x-forwarded-port',
  'x-forwarded-proto',
  'x-real-ip',
] as const;

/** Throws where a proxy is no address: a mistyped one must not go unnoticed. */
export function doorsOf({ names, proxies }: Said): Doors {
  const known = new Set(['localhost', ...listed(names)]);
  const trusted = proxyAddr.compile(listed(proxies));
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
