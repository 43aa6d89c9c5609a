import { readFileSync } from 'node:fs';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ChildProcess } from 'node:child_process';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { root } from '../../src/cli/instance';
import { firstLine, startPart, stopPart } from '../../src/cli/run';
import { success } from '../../src/core/result';
import { receiverSchema } from '../../src/core/car/uds/receiver';
import { jsonRpcTool } from '../../src/devices/activation/json-rpc-tool';
import * as bay from '../../src/devices/bay';
import { parseAddress, type Address } from '../../src/devices/json-rpc';
import { openChannel } from '../../src/devices/vehicle/channel';
import type { VehicleLead } from '../../src/devices/vehicle/port';
import { udsLead } from '../../src/devices/vehicle/uds-lead';
import { withLead } from '../../src/services/devices';

const [first, second] = JSON.parse(readFileSync(join(root, 'demo/cars.json'), 'utf8')) as [
  { vin: string; receiver: unknown },
  { vin: string },
];
const receiver = receiverSchema.parse(first.receiver);
const vins = {
  stores: first.vin,
  forgets: 'FORGETS0000000001',
  refuses: 'REFUSES0000000001',
  loses: 'L0SES000000000001',
  weak: 'WEAK0000000000001',
};
const cars = [
  first,
  second,
  { ...first, vin: vins.forgets, onWrite: 'forgets' },
  { ...first, vin: vins.refuses, onWrite: 'refuses' },
  { ...first, vin: vins.loses, onWrite: 'loses-answer' },
  { ...first, vin: vins.weak, supply: { volts: 10.8, engine: 'off' } },
];

const folder = mkdtempSync(join(tmpdir(), 'hacienda-devices-'));
let part: ChildProcess;
let tool: Address;
let practice: Address;

async function startDevices() {
  writeFileSync(join(folder, 'cars.json'), JSON.stringify(cars));
  part = startPart(
    [
      join(root, 'dist/standins.mjs'),
      join(folder, 'cars.json'),
      join(folder, 'state.json'),
      join(root, 'demo/weather.json'),
      join(root, 'demo/sensors.json'),
      '0',
      '0',
    ],
    { cwd: root },
  );
  const ports = JSON.parse(await firstLine(part, 'devices', (line) => line.startsWith('{'))) as {
    tool: number;
    bay: number;
  };
  tool = { host: '127.0.0.1', port: ports.tool };
  practice = { host: '127.0.0.1', port: ports.bay };
  process.env.HACIENDA_BAY = `127.0.0.1:${ports.bay}`;
}
beforeAll(startDevices);
afterAll(() => stopPart(part));

const at = (vin: string) => bay.plugIn(practice, vin);
async function inCar<Value>(vin: string, work: (lead: VehicleLead) => Promise<Value>): Promise<Value> {
  const address = await at(vin);
  if (!address.ok) throw new Error(address.problem.message);
  const channel = await openChannel(address.value.host, address.value.port);
  if (!channel.ok) throw new Error(channel.problem.message);
  const lead = udsLead(channel.value, receiver);
  const value = await work(lead);
  lead.close();
  return value;
}
const entries = [
  { wheel: 'LF' as const, id: '4B07C2D1' },
  { wheel: 'RF' as const, id: '4B07D93A' },
  { wheel: 'RR' as const, id: '4B9A61F0' },
  { wheel: 'LR' as const, id: null },
];

describe('the lead in a simulated car', () => {
  it('reads who it is, what it holds, its codes, its supply and its live pressures', async () => {
    await inCar(vins.stores, async (lead) => {
      expect(await lead.readVin()).toEqual(success(first.vin));
      expect(await lead.readRegistry()).toMatchObject({
        ok: true,
        value: [{ wheel: 'LF', id: '4B07C2D1' }, {}, { id: '4B11E0F6' }, {}],
      });
      expect(await lead.readCodes()).toEqual(success([{ code: 'C1B31', status: 'active' }]));
      expect(await lead.readSupply()).toEqual(success({ volts: 12.6, engine: 'off' }));
      expect(await lead.readLive()).toMatchObject({ ok: true, value: { speedKmh: 0 } });
    });
  });

  it('writes, none included, and reads back what it wrote', async () => {
    await inCar(vins.stores, async (lead) => {
      expect(await lead.writeRegistry(entries)).toEqual({ answer: 'yes' });
      expect(await lead.readRegistry()).toEqual(success(entries));
    });
  });

  it('keeps what was written when the devices are switched off and on, as a car does', async () => {
    await stopPart(part);
    await startDevices();
    expect(await inCar(vins.stores, (lead) => lead.readRegistry())).toEqual(success(entries));
  });

  it('that says yes and forgets is found out by the read-back alone', async () => {
    await inCar(vins.forgets, async (lead) => {
      expect(await lead.writeRegistry(entries)).toEqual({ answer: 'yes' });
      expect(await lead.readRegistry()).not.toEqual(success(entries));
    });
  });

  it('that refuses says why; that loses the answer is waited for, then called lost', async () => {
    expect(await inCar(vins.refuses, (lead) => lead.writeRegistry(entries))).toMatchObject({
      answer: 'no',
      reason: expect.stringMatching(/conditions/),
    });
    expect(await inCar(vins.weak, (lead) => lead.writeRegistry(entries))).toMatchObject({ answer: 'no' });
    expect(await inCar(vins.loses, (lead) => lead.writeRegistry(entries))).toMatchObject({ answer: 'lost' });
    expect(await inCar(vins.loses, (lead) => lead.readRegistry())).toEqual(success(entries));
  }, 20_000);

  it('takes other pressures for its lamp; only reading back tells whether it has them', async () => {
    const raised = { lowOnKPa: 199, lowOffKPa: 224.5 };
    const written = (vin: string) => inCar(vin, (lead) => lead.writeThresholds(raised));
    const held = (vin: string) => inCar(vin, (lead) => lead.readThresholds());
    expect(await written(vins.stores)).toEqual({ answer: 'yes' });
    expect(await held(vins.stores)).toEqual(success(raised));
    expect(await written(vins.forgets)).toEqual({ answer: 'yes' });
    expect(await held(vins.forgets)).toEqual(success({ lowOnKPa: 175, lowOffKPa: 200 }));
    expect(await written(vins.refuses)).toMatchObject({ answer: 'no' });
  });

  it('clears codes only to set them again on the road while the fault stands', async () => {
    expect(await inCar(vins.forgets, (lead) => lead.clearCodes())).toEqual({ answer: 'yes' });
    expect(await inCar(vins.forgets, (lead) => lead.readCodes())).toEqual(success([]));
    await bay.driveOff(practice, vins.forgets, 62, 10);
    expect(await inCar(vins.forgets, (lead) => lead.readCodes())).toMatchObject({
      ok: true,
      value: [{ code: 'C1B31' }],
    });
    await bay.park(practice, vins.forgets);
  });

  it('left in another car is told by the VIN, before anything is read or written', async () => {
    const other = await at(second.vin);
    process.env.HACIENDA_LEAD = other.ok ? `${other.value.host}:${other.value.port}` : '';
    const touched = await withLead(first.vin, receiver, async (lead) =>
      success(await lead.writeRegistry(entries)),
    );
    delete process.env.HACIENDA_LEAD;
    expect(touched).toMatchObject({
      ok: false,
      problem: { code: 'other-car', message: expect.stringContaining(second.vin) },
    });
  });
});

describe('trouble with a device', () => {
  const nobody: Address = { host: '127.0.0.1', port: 1 };

  it('that is not there is told with where it was looked for', async () => {
    expect(await openChannel(nobody.host, nobody.port)).toMatchObject({
      ok: false,
      problem: { code: 'lead-unreachable' },
    });
    const woken = await jsonRpcTool(nobody).wake({ wheel: 'LF', trigger: 'pulsed', vehicle: first.vin });
    expect(woken).toMatchObject({ ok: false, problem: { code: 'device-unreachable' } });
  });

  it('that does not know the car says so', async () => {
    expect(await jsonRpcTool(tool).wake({ wheel: 'LF', trigger: 'pulsed', vehicle: 'NOBODY' })).toMatchObject(
      {
        ok: false,
        problem: { code: 'device-refused' },
      },
    );
    expect(await at('NOBODY')).toMatchObject({ ok: false });
  });

  it('noise on the line neither stops the lead nor is taken for an answer', async () => {
    const address = await at(vins.stores);
    if (!address.ok) throw new Error(address.problem.message);
    const socket = connect(address.value);
    socket.write('\r\rgarbage\rt7A3\rO\rt7A38FFFFFFFFFFFFFFFF\rt7A380322F190CCCCCCCC\r');
    const answer = await new Promise<string>((resolve) => {
      let text = '';
      socket.on('data', (chunk) => {
        text += chunk.toString('latin1');
        if (/t7AB8/.test(text)) resolve(text);
      });
    });
    socket.destroy();
    expect(answer).toMatch(/t7AB81014/);
  });

  it('address is host and port, or nothing', () => {
    expect(parseAddress('tcp://10.0.0.5:3333')).toEqual({ host: '10.0.0.5', port: 3333 });
    expect(parseAddress('shop-tool:80')).toEqual({ host: 'shop-tool', port: 80 });
    expect(parseAddress('')).toBeUndefined();
    expect(parseAddress('nowhere')).toBeUndefined();
  });
});

describe('the activation tool', () => {
  it('answers with the sensor at the wheel it is held to', async () => {
    expect(
      await jsonRpcTool(tool).wake({ wheel: 'RR', trigger: 'pulsed', vehicle: first.vin }),
    ).toMatchObject({
      ok: true,
      value: [{ id: '4B9A61F0', kPa: 221, frequencyMHz: 433.92, family: 'kestrel', battery: 'ok' }],
    });
  });
});
