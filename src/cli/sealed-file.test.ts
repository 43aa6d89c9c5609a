import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { isSealed, openFile, sealFile } from './sealed-file';

const folder = mkdtempSync(join(tmpdir(), 'hacienda-sealed-'));
const [plain, sealed, opened] = ['plain', 'sealed', 'opened'].map((name) => join(folder, name)) as [
  string,
  string,
  string,
];
const passphrase = 'four valves and a core';
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('a sealed file', () => {
  it.each([0, 1, 65_536, 300_000])('of %d bytes opens as what it was, by its passphrase', async (size) => {
    const bytes = randomBytes(size);
    writeFileSync(plain, bytes);
    await sealFile(plain, sealed, passphrase);
    expect(isSealed(sealed)).toBe(true);
    expect(isSealed(plain)).toBe(false);
    await openFile(sealed, opened, passphrase);
    expect(readFileSync(opened).equals(bytes)).toBe(true);
  });

  it('is another each time, though it holds the same', async () => {
    writeFileSync(plain, 'the same');
    await sealFile(plain, sealed, passphrase);
    const first = readFileSync(sealed);
    await sealFile(plain, sealed, passphrase);
    expect(readFileSync(sealed).equals(first)).toBe(false);
  });

  it('is told from one that was torn, changed by a bit, or sealed by another passphrase', async () => {
    writeFileSync(plain, randomBytes(1000));
    await sealFile(plain, sealed, passphrase);
    const whole = readFileSync(sealed);
    const refuses = async (bytes: Buffer, word = passphrase) => {
      writeFileSync(sealed, bytes);
      await expect(openFile(sealed, opened, word)).rejects.toThrow(/cannot be opened/);
    };
    await refuses(whole, 'four valves and a cap');
    for (const length of [18, 30, whole.length - 1]) await refuses(whole.subarray(0, length));
    for (const place of [20, 40, 700, whole.length - 1]) {
      const changed = Buffer.from(whole);
      changed[place] = (changed[place] ?? 0) ^ 1;
      await refuses(changed);
    }
  });
});
