import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import {
  createMessageConnection,
  ResponseError,
  SocketMessageReader,
  SocketMessageWriter,
} from 'vscode-jsonrpc/node';
import { z } from 'zod';
import { accepted, decodeFrame, encodeFrame, refused } from '../core/car/can/slcan';
import { canonicalVin } from '../core/names/vin';
import { walkingOrder } from '../core/names/wheel';
import { wakeOnBench } from './bench';
import { carSchema, coolTo, drive, fill, fit, park, wake, type Car } from './car';
import { blankSchema, inCradle, lay, program, type Blank } from './cradle';
import { feel, handsSchema, later, onRoad, overhears } from './learning';
import { receiverModule } from './module';
import { scenarioSchema, weatherService } from './weather';

/**
 * The devices outside the app, simulated, in a process of their own as they would be: an activation
 * tool, a practice bay, per car a lead, and a weather service. Cars keep their state in a file, as real
 * ones do.
 *
 * Arguments: the files of the cars, of their state, of the weather and of the box of sensors; the ports of the tool
 * and of the bay (0: any).
 * Prints `{ tool, bay, weather }` with the ports on one line when ready.
 */
const host = '127.0.0.1';
const [carsFile, stateFile, weatherFile, boxFile, toolPort, bayPort] = z
  .tuple([z.string(), z.string(), z.string(), z.string(), z.coerce.number(), z.coerce.number()])
  .parse(process.argv.slice(2));

const cars = new Map<string, Car>();
const leads = new Map<string, Promise<number>>();

for (const car of z.array(carSchema).parse(JSON.parse(readFileSync(carsFile, 'utf8'))))
  cars.set(car.vin, car);
if (existsSync(stateFile)) {
  for (const car of z.array(carSchema).parse(JSON.parse(readFileSync(stateFile, 'utf8'))))
    cars.set(car.vin, car);
}

const boxState = `${stateFile}.box`;
let box = z
  .array(blankSchema)
  .parse(JSON.parse(readFileSync(existsSync(boxState) ? boxState : boxFile, 'utf8')));

function keepBox(next: Blank[]): void {
  box = next;
  writeFileSync(`${boxState}.new`, JSON.stringify(box));
  renameSync(`${boxState}.new`, boxState);
}

function update(vin: string, change: (car: Car) => Car): Car {
  const before = carWith(vin);
  const next = change(before);
  if (next === before) return next;
  cars.set(next.vin, next);
  writeFileSync(`${stateFile}.new`, JSON.stringify([...cars.values()]));
  renameSync(`${stateFile}.new`, stateFile);
  return next;
}

function carWith(vin: string): Car {
  const car = cars.get(canonicalVin(vin));
  if (!car) throw new ResponseError(404, 'this car does not stand in the practice bay');
  return car;
}

const look = (car: Car) => ({
  vin: car.vin,
  lamp: car.lamp,
  speedKmh: car.speedKmh,
  outdoorC: car.outdoorC,
  kPa: Object.fromEntries(Object.entries(car.wheels).map(([wheel, { kPa }]) => [wheel, kPa])),
  tireC: Object.fromEntries(
    Object.entries(car.wheels).map(([wheel, { tireC }]) => [wheel, tireC ?? car.outdoorC]),
  ),
});

const ofCar = z.object({ vin: z.string() });
const wakeRequest = z.object({
  vehicle: z.string(),
  wheel: z.enum(walkingOrder),
  place: z.literal('bench').optional(),
});
const driveRequest = ofCar.extend({ speedKmh: z.number(), minutes: z.number() });
const handsRequest = ofCar.extend({ hands: handsSchema, agoMs: z.number().min(0).default(0) });
const airRequest = ofCar.extend({ wheel: z.enum(walkingOrder), kPa: z.number().min(0).max(600) });
const nightRequest = ofCar.extend({ celsius: z.number().min(-60).max(60), speedKmh: z.number() });
const programRequest = z.object({ id: z.string(), family: z.string(), frequencyMHz: z.number() });
const cradleRequest = z.object({ serials: z.array(z.string()) });
const fitRequest = ofCar.extend({ wheel: z.enum(walkingOrder), serial: z.string() });
const wakeMs = 400;
const programMs = 600;

type Handler = (parameters: unknown) => unknown;

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

const tool: Record<string, Handler> = {
  wake: async (parameters) => {
    const { vehicle, wheel, place } = wakeRequest.parse(parameters);
    await pause(wakeMs);
    if (place === 'bench') {
      const onBench = wakeOnBench(carWith(vehicle), wheel);
      update(vehicle, () => onBench.car);
      return { replies: onBench.replies };
    }
    const { car, replies } = wake(carWith(vehicle), wheel);
    update(vehicle, () => (replies.length > 0 ? overhears(car, wheel, Date.now()) : car));
    return { replies };
  },
};

const cradle: Record<string, Handler> = {
  'cradle/read': async () => {
    await pause(wakeMs);
    return { sensors: inCradle(box) };
  },
  'cradle/program': async (parameters) => {
    const asked = programRequest.parse(parameters);
    await pause(programMs);
    const { box: next, answer } = program(box, asked);
    keepBox(next);
    if (answer === 'lost') return new Promise(() => undefined);
    if (answer !== 'yes') throw new ResponseError(409, answer.refused);
    return {};
  },
};

const bay: Record<string, Handler> = {
  'bay/wake': (parameters) => tool.wake?.(parameters),
  'bay/registry': (parameters) => ({ entries: carWith(ofCar.parse(parameters).vin).registry }),
  'bay/box': () => ({ sensors: box }),
  'bay/cradle': (parameters) => {
    keepBox(lay(box, cradleRequest.parse(parameters).serials));
    return { sensors: box };
  },
  'bay/fit': (parameters) => {
    const { vin, wheel, serial } = fitRequest.parse(parameters);
    const sensor = box.find((one) => one.serial === serial && !one.fitted);
    if (!sensor) throw new ResponseError(404, 'this sensor is not in the box');
    const now = update(vin, (car) => fit(car, wheel, sensor));
    keepBox(box.map((one) => (one === sensor ? { ...one, inCradle: false, fitted: true } : one)));
    return look(now);
  },
  'bay/lead': async (parameters) => {
    const { vin } = ofCar.parse(parameters);
    if (!carWith(vin).receiver) throw new ResponseError(404, 'this car has no receiver to talk to');
    const key = canonicalVin(vin);
    const port =
      leads.get(key) ??
      listenOn(
        createServer((socket) => serveLead(socket, key)),
        0,
      );
    leads.set(key, port);
    return { host, port: await port };
  },
  'bay/look': (parameters) => look(carWith(ofCar.parse(parameters).vin)),
  'bay/drive': (parameters) => {
    const { vin, speedKmh } = driveRequest.parse(parameters);
    return look(update(vin, (car) => drive(car, speedKmh)));
  },
  'bay/park': (parameters) => look(update(ofCar.parse(parameters).vin, park)),
  'bay/night': (parameters) => {
    const { vin, celsius, speedKmh } = nightRequest.parse(parameters);
    // The lamp judges on the first drive of the morning.
    return look(update(vin, (car) => park(drive(coolTo(car, celsius), speedKmh))));
  },
  'bay/hands': (parameters) => {
    const { vin, hands, agoMs } = handsRequest.parse(parameters);
    // A car feels a hand when it is there, not when the word of it has come through.
    const then = Date.now() - agoMs;
    return look(
      update(vin, (car) =>
        hands.event === 'speed' ? onRoad(drive(car, hands.kmh), hands.kmh, then) : feel(car, hands, then),
      ),
    );
  },
  'bay/cues': (parameters) => {
    const { vin } = ofCar.parse(parameters);
    return { cues: update(vin, (car) => later(car, Date.now())).mind.said };
  },
  'bay/air': (parameters) => {
    const { vin, wheel, kPa } = airRequest.parse(parameters);
    return look(update(vin, (car) => fill(car, wheel, kPa)));
  },
};

function serveCalls(socket: Socket, handlers: Record<string, Handler>): void {
  const connection = createMessageConnection(
    new SocketMessageReader(socket),
    new SocketMessageWriter(socket),
  );
  for (const [method, handle] of Object.entries(handlers)) connection.onRequest(method, handle);
  connection.onError(() => socket.destroy());
  socket.on('error', () => socket.destroy());
  connection.listen();
}

/** A lead speaks slcan: commands answered with CR, frames to and from the car's bus. */
function serveLead(socket: Socket, vin: string): void {
  let open = false;
  let buffer = '';
  const onFrame = receiverModule(
    { car: () => carWith(vin), update: (change) => void update(vin, change) },
    (frame) => {
      if (open && !socket.destroyed) socket.write(encodeFrame(frame));
    },
  );
  socket.setEncoding('latin1');
  socket.on('error', () => socket.destroy());
  socket.on('data', (text: string) => {
    const lines = (buffer + text).split('\r');
    buffer = lines.pop() ?? '';
    for (const line of lines) {
      const frame = decodeFrame(line);
      if (frame && open) {
        socket.write(`z${accepted}`);
        onFrame(frame);
      } else if (/^S[0-8]$/.test(line)) socket.write(accepted);
      else if (line === 'O' || line === 'C') {
        open = line === 'O';
        socket.write(accepted);
      } else socket.write(refused);
    }
  });
}

function listenOn(server: Server, port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, () => resolve((server.address() as AddressInfo).port));
  });
}

const ports = {
  tool: await listenOn(
    createServer((socket) => serveCalls(socket, { ...tool, ...cradle })),
    toolPort,
  ),
  bay: await listenOn(
    createServer((socket) => serveCalls(socket, bay)),
    bayPort,
  ),
  weather: await listenOn(
    weatherService(scenarioSchema.parse(JSON.parse(readFileSync(weatherFile, 'utf8'))), new Date()),
    0,
  ),
};
process.stdout.write(`${JSON.stringify(ports)}\n`);
// The starter holds the other end of standard input: when it goes, the devices go with it.
process.stdin.on('end', () => process.exit(0)).resume();
