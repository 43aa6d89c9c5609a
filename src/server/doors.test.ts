import type { IncomingMessage } from 'node:http';
import { describe, expect, it } from 'vitest';
import { doorsOf } from './doors';

const from = (remoteAddress: string, headers: Record<string, string> = {}) =>
  ({ headers, socket: { remoteAddress } }) as unknown as IncomingMessage;

describe('the host that is asked for', () => {
  const { admits } = doorsOf({ names: ['Tires.example', 'desk.local'] });

  it('is an address, this machine, or a name the operator gave', () => {
    for (const host of [
      '127.0.0.1:4317',
      '192.168.3.7',
      '[::1]:80',
      'localhost:4317',
      'tires.example',
      'DESK.local:81',
    ])
      expect(admits(host), host).toBe(true);
  });

  it('is never a name that somebody else made lead here', () => {
    for (const host of [
      'rebound.example',
      'localhost.example:4317',
      '127.0.0.1.example',
      'tires.example.org',
      '',
      'a b',
    ])
      expect(admits(host), host).toBe(false);
    expect(admits(undefined)).toBe(false);
  });
});

describe('where a request came from', () => {
  it('is its peer, whatever it says of itself', () => {
    const { settle } = doorsOf({});
    const request = from('203.0.113.9', { 'x-forwarded-for': '192.0.2.1', forwarded: 'for=192.0.2.1' });
    expect(settle(request)).toBe('203.0.113.9');
    expect(request.headers).toEqual({ 'x-forwarded-for': '203.0.113.9' });
  });

  it('is what a proxy of the operator says, as far as only such were on the way', () => {
    const { settle } = doorsOf({ proxies: ['loopback', '10.0.0.0/8'] });
    expect(settle(from('127.0.0.1', { 'x-forwarded-for': '198.51.100.4, 10.1.1.1' }))).toBe('198.51.100.4');
    // The first entry is the visitor's own invention.
    expect(settle(from('127.0.0.1', { 'x-forwarded-for': '192.0.2.1, 198.51.100.4' }))).toBe('198.51.100.4');
    expect(settle(from('198.51.100.4', { 'x-forwarded-for': '192.0.2.1' }))).toBe('198.51.100.4');
  });

  it('cannot be set up with a proxy that is no address', () => {
    expect(() => doorsOf({ proxies: ['my proxy'] })).toThrow(/invalid/i);
  });
});
