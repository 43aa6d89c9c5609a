import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { setting, settings, wrongSettings } from '.';

afterEach(() => vi.unstubAllEnvs());

describe('a setting', () => {
  it('is as it was said, in its own kind, and nothing where it was not', () => {
    vi.stubEnv('HACIENDA_NAMES', 'tires.example, desk.local,');
    vi.stubEnv('HACIENDA_BACKUP_HOUR', '4');
    vi.stubEnv('HACIENDA_HTTPS', '1');
    vi.stubEnv('HACIENDA_SHOP', '');
    expect(setting('HACIENDA_NAMES')).toEqual(['tires.example', 'desk.local']);
    expect(setting('HACIENDA_BACKUP_HOUR')).toBe(4);
    expect(setting('HACIENDA_HTTPS')).toBe(true);
    expect(setting('HACIENDA_SHOP')).toBeUndefined();
    expect(setting('HACIENDA_CHAIN')).toBeUndefined();
  });

  it('that is wrong, or none of ours, is told with what it takes', () => {
    const said = {
      ...{ PORT: '70000', HACIENDA_BACKUP_HOUR: '24', HACIENDA_SHOP: 'River Side', HACIENDA_HTTPS: 'yes' },
      ...{ HACIENDA_KEY: 'short', HACIENDA_LEAD: 'the lead', HACIENDA_NAME: 'desk.local', HOME: '/root' },
    };
    expect(wrongSettings(said).map((sentence) => sentence.split(' ')[0])).toEqual([
      'PORT',
      'HACIENDA_HTTPS',
      'HACIENDA_KEY',
      'HACIENDA_LEAD',
      'HACIENDA_BACKUP_HOUR',
      'HACIENDA_SHOP',
      'HACIENDA_NAME',
    ]);
    expect(wrongSettings({ PORT: '70000' })).toEqual(['PORT takes a whole number from 1 to 65535.']);
    expect(wrongSettings({ PORT: '4317', HACIENDA_KEY: btoa('k'.repeat(32)) })).toEqual([]);
  });

  it('stands in the document that is made from the list', async () => {
    const rows = Object.entries<{ takes: string; says?: string }>(settings).flatMap(
      ([name, { takes, says }]) => (says === undefined ? [] : [`| \`${name}\` | ${takes} | ${says} |`]),
    );
    const document = `# Settings\n\nVariables of the command that starts it; a wrong or unknown one is told at the start. Made from \`src/settings\` by its test (\`npx vitest run --project unit src/settings -u\`).\n\n| variable | takes | says |\n| --- | --- | --- |\n${rows.join('\n')}\n`;
    await expect(document).toMatchFileSnapshot('../../docs/settings.md');
  });

  it('is read nowhere else', () => {
    const source = fileURLToPath(new URL('..', import.meta.url));
    const astray = readdirSync(source, { recursive: true, encoding: 'utf8' })
      .filter((file) => /\.(ts|tsx|astro|mjs)$/.test(file) && !/^settings\/|\.test\.ts$/.test(file))
      .filter((file) =>
        /(?<!delete )process\.env\.(HACIENDA_\w+|DATABASE_URL|PORT|HOST)\b(?! = )/.test(
          readFileSync(join(source, file), 'utf8'),
        ),
      );
    expect(astray).toEqual([]);
  });
});
