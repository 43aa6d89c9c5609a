import { setTimeout as wait } from 'node:timers/promises';
import type { Frame } from '../core/car/can/frame';
import { Reassembly, readFlowControl, segment } from '../core/car/can/isotp';
import {
  codeBytes,
  codeStatus,
  extendedSession,
  negative,
  service,
  vinIdentifier,
  word,
} from '../core/car/uds';
import {
  decodeRegistry,
  decodeThresholds,
  encodeLive,
  encodeRegistry,
  encodeThresholds,
  type Receiver,
} from '../core/car/uds/receiver';
import { clearCodes, live, store, type Car } from './car';

/** Lets the module look at and change its car. */
interface Garage {
  car: () => Car;
  update: (change: (car: Car) => Car) => void;
}

/** Under this a module refuses to be written, V. */
const leastVolts = 11;

/** The receiver module of a simulated car on its bus: UDS over ISO-TP, frame by frame. */
export function receiverModule(garage: Garage, send: (frame: Frame) => void): (frame: Frame) => void {
  const reassembly = new Reassembly();
  let extended = false;
  let unsent: Uint8Array[] = [];

  const answer = (bytes: number[]) => {
    const { receiver } = garage.car();
    if (!receiver) return;
    const { first, rest } = segment(Uint8Array.from(bytes));
    unsent = rest;
    send({ id: receiver.answerId, data: first });
  };

  async function respond(request: Uint8Array): Promise<number[] | undefined> {
    const [sid = 0] = request;
    const refuse = (code: number) => [0x7f, sid, code];
    const car = garage.car();
    switch (sid) {
      case service.session:
        extended = request[1] === extendedSession;
        return [sid + 0x40, request[1] ?? 0, 0, 50, 1, 0xf4];
      case service.testerPresent:
        return [sid + 0x40, 0];
      case service.readData: {
        const data = valueOf(car, ((request[1] ?? 0) << 8) | (request[2] ?? 0));
        return data ? [sid + 0x40, request[1] ?? 0, request[2] ?? 0, ...data] : refuse(negative.outOfRange);
      }
      case service.readCodes: {
        const mask = codeStatus.testFailed | codeStatus.confirmed;
        const codes = car.codes.flatMap(({ code, active }) => [
          ...(codeBytes(code) ?? [0, 0]),
          0,
          active ? mask : codeStatus.confirmed,
        ]);
        return [sid + 0x40, request[1] ?? 0, mask, ...codes];
      }
      case service.clearCodes:
        if (!extended) return refuse(negative.notInThisSession);
        garage.update(clearCodes);
        return [sid + 0x40];
      case service.writeData: {
        if (!extended) return refuse(negative.notInThisSession);
        const { receiver } = car;
        const identifier = ((request[1] ?? 0) << 8) | (request[2] ?? 0);
        const change = receiver ? changeOf(receiver, identifier, request.slice(3)) : undefined;
        if (change === undefined) return refuse(negative.outOfRange);
        if (change === 'wrong-length') return refuse(negative.wrongLength);
        if (car.onWrite === 'refuses' || car.supply.volts < leastVolts)
          return refuse(negative.conditionsNotCorrect);
        answer(refuse(negative.pending));
        await wait(car.writeMs);
        if (car.onWrite !== 'forgets') garage.update(change);
        return car.onWrite === 'loses-answer' ? undefined : [sid + 0x40, ...word(identifier)];
      }
      default:
        return refuse(negative.serviceNotSupported);
    }
  }

  return ({ id, data }) => {
    const { receiver } = garage.car();
    if (id !== receiver?.requestId) return;
    if (unsent.length > 0 && readFlowControl(data) === 'clear-to-send') {
      for (const part of unsent) send({ id: receiver.answerId, data: part });
      unsent = [];
      return;
    }
    const received = reassembly.accept(data);
    if (received.kind === 'flow-control') send({ id: receiver.answerId, data: received.data });
    if (received.kind === 'message') void respond(received.message).then((bytes) => bytes && answer(bytes));
  };
}

/** What a write does to the car; undefined where the receiver keeps nothing under this identifier. */
function changeOf(
  receiver: Receiver,
  identifier: number,
  data: Uint8Array,
): ((car: Car) => Car) | 'wrong-length' | undefined {
  switch (identifier) {
    case receiver.registry: {
      const entries = decodeRegistry(receiver, data);
      return entries ? (car) => store(car, entries) : 'wrong-length';
    }
    case receiver.thresholds: {
      const thresholds = decodeThresholds(data);
      return thresholds ? (car) => ({ ...car, ...thresholds }) : 'wrong-length';
    }
    default:
      return undefined;
  }
}

function valueOf(car: Car, identifier: number): Uint8Array | undefined {
  const { receiver } = car;
  if (!receiver) return undefined;
  switch (identifier) {
    case vinIdentifier:
      return new TextEncoder().encode(car.vin);
    case receiver.registry:
      return encodeRegistry(receiver, car.registry);
    case receiver.live:
      return encodeLive(receiver, live(car));
    case receiver.thresholds:
      return encodeThresholds(car);
    case receiver.speed:
      return Uint8Array.from(word(Math.round(car.speedKmh * 10)));
    case receiver.supply:
      return Uint8Array.from([
        ...word(Math.round(car.supply.volts * 1000)),
        car.supply.engine === 'on' ? 1 : 0,
      ]);
    default:
      return undefined;
  }
}
