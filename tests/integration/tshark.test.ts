import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { segment } from '../../src/core/car/can/isotp';
import { toHex } from '../../src/core/car/can/frame';
import { codeBytes, codeText, service, vinIdentifier, word } from '../../src/core/car/uds';

/** ISO-TP and UDS as Debian's tshark (Wireshark) decodes them: a reading of both standards that is not ours. */

const folder = mkdtempSync(join(tmpdir(), 'hacienda-can-'));
const capture = join(folder, 'capture.log');
const vin = '0HAVE1A90K1004417';
const text = (words: string) => [...new TextEncoder().encode(words)];

const request = Uint8Array.from([service.readData, ...word(vinIdentifier)]);
const answer = Uint8Array.from([service.readData + 0x40, ...word(vinIdentifier), ...text(vin)]);
const [high, low] = codeBytes('C1B31') ?? [0, 0];
const codes = Uint8Array.from([service.readCodes + 0x40, 0x02, 0x09, high, low, 0x00, 0x09]);
const refused = Uint8Array.from([0x7f, service.writeData, 0x78]);
const registry = Uint8Array.from([
  service.writeData,
  0x10,
  0x01,
  ...Array.from({ length: 20 }, (_, n) => n * 7),
]);

let packets: string[];

beforeAll(() => {
  let seconds = 1_700_000_000;
  const lines = [
    [0x765, request],
    [0x76d, answer],
    [0x76d, codes],
    [0x765, registry],
    [0x76d, refused],
  ].flatMap(([id, message]) => {
    const { first, rest } = segment(message as Uint8Array);
    return [first, ...rest].map((frame) => {
      seconds += 0.01;
      return `(${seconds.toFixed(6)}) can0 ${(id as number).toString(16).toUpperCase()}#${toHex(frame)}`;
    });
  });
  writeFileSync(capture, `${lines.join('\n')}\n`);
  const options = ['-r', capture, '-d', 'can.subdissector,iso15765', '-d', 'iso15765.subdissector,uds', '-V'];
  packets = execFileSync('tshark', options, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'ignore'] })
    .split(/\n(?=Frame \d+:)/)
    .filter((packet) => packet.includes('Unified Diagnostic Services'));
});
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const packet = (...parts: RegExp[]) => packets.find((one) => parts.every((part) => part.test(one)));

describe('what goes over the lead, as an independent decoder reads it', () => {
  it('is five diagnostic messages, the long ones put together from their frames', () => {
    expect(packets).toHaveLength(5);
    const written = packet(/Write Data By Identifier/, /Data Identifier: 0x1001/);
    expect(written).toContain(toHex(registry.subarray(3)).toLowerCase());
  });

  it('asks for the VIN and gives it', () => {
    expect(packet(/Read Data By Identifier \(0x22\)/, /f190/i)).toBeDefined();
    const answered = packets.find(
      (one) => one.includes(vin) || one.includes(toHex(Uint8Array.from(text(vin))).toLowerCase()),
    );
    expect(answered).toMatch(/Reply|0x62|Read Data By Identifier/);
  });

  it('reports a code by its status mask, and the code is the one we name', () => {
    const report = packet(/Read DTC Information/i);
    expect(report).toBeDefined();
    expect(report?.replaceAll(/[^0-9a-f]/gi, '').toLowerCase()).toContain(
      toHex(Uint8Array.from([high, low])).toLowerCase(),
    );
    expect(codeText(high, low)).toBe('C1B31');
  });

  it('refuses a write with "answer pending", as the standard numbers it', () => {
    const pending = packet(/Service Identifier: Error/);
    expect(pending).toMatch(/Service Identifier: Write Data By Identifier \(0x2e\)/);
    expect(pending).toMatch(/Code: .*response is pending \(0x78\)/);
  });
});
