import { createServer } from 'node:net';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { noDevices, shopSettingsSchema, usualSettings } from '../../src/core/records/shop';
import { addressText, devicesAsHeard, devicesNow, tryDevice, useDevices } from '../../src/services/devices';
import { setShop, shopSettings } from '../../src/services/shop';
import { person } from '../support/people';

const manager = person('manager');
const stateOf = (kind: 'tool' | 'lead' | 'weather') => devicesAsHeard().find((one) => one.kind === kind);

afterEach(() => {
  vi.unstubAllEnvs();
  useDevices(noDevices);
});

describe('a device that is set up in the app', () => {
  it('is there for every job from then on, and gone once its address is taken away', async () => {
    const settings = await shopSettings();
    expect(devicesNow().tool).toBe(false);
    await setShop({ ...settings, devices: { ...noDevices, tool: '192.168.1.20:4700' } }, manager);
    expect(devicesNow().tool).toBe(true);
    await setShop({ ...settings, devices: noDevices }, manager);
    expect(devicesNow().tool).toBe(false);
  });

  it('gives way to one that was named when the server was started', () => {
    useDevices({ ...noDevices, tool: '192.168.1.20:4700' });
    vi.stubEnv('HACIENDA_TOOL', '127.0.0.1:9');
    expect(addressText('tool')).toBe('127.0.0.1:9');
    expect(stateOf('tool')).toMatchObject({ namedAtStart: true });
  });

  it('says since when it answers, and what was the matter when it did not', async () => {
    const server = createServer((socket) => socket.end());
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const at = server.address();
    const port = at && typeof at === 'object' ? at.port : 0;
    useDevices({ ...noDevices, lead: `127.0.0.1:${port}` });
    await tryDevice('lead', 'Ines');
    expect(stateOf('lead')).toMatchObject({ by: 'Ines', trouble: null });
    const { since } = stateOf('lead') ?? {};
    expect(since).toBeTruthy();
    await tryDevice('lead', 'Ines');
    expect(stateOf('lead')?.since).toBe(since);
    await new Promise((resolve) => server.close(resolve));
    await tryDevice('lead', 'Ada');
    expect(stateOf('lead')).toMatchObject({ since: null, by: 'Ada' });
    expect(stateOf('lead')?.trouble?.message).toContain('Nothing answers at 127.0.0.1');
  });

  it('has an address that can be one', () => {
    const reads = (devices: object) => shopSettingsSchema.safeParse({ ...usualSettings, devices }).success;
    expect(reads({ tool: 'bay-2.shop:4700', lead: '', weather: 'http://10.0.0.5/hourly' })).toBe(true);
    for (const tool of ['bay 2:4700', 'http://bay-2', 'bay-2', ':4700'])
      expect(reads({ tool }), tool).toBe(false);
    for (const weather of ['javascript:alert(1)', 'file:///etc/passwd', 'hourly'])
      expect(reads({ weather }), weather).toBe(false);
  });
});
