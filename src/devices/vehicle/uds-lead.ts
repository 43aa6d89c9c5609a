import { toHex } from '../../core/car/can/frame';
import { Reassembly, readFlowControl, segment } from '../../core/car/can/isotp';
import type { Code } from '../../core/job';
import { failure, success, type Result } from '../../core/result';
import {
  allCodes,
  codeStatus,
  codeText,
  extendedSession,
  readAnswer,
  reportByStatusMask,
  service,
  vinIdentifier,
  word,
} from '../../core/car/uds';
import {
  decodeLive,
  decodeRegistry,
  decodeThresholds,
  encodeRegistry,
  encodeThresholds,
  type Receiver,
} from '../../core/car/uds/receiver';
import type { CanChannel } from './channel';
import type { VehicleLead, WriteAnswer } from './port';

/** How long a module may take to a first answer, ms (ISO 14229-2 calls for 50; gateways add to that). */
const answerMs = 1000;
/** How long after it asked for time (ISO 14229-2 P2*, from memory). */
const pendingMs = 5000;

type Exchange =
  { kind: 'positive'; data: Uint8Array } | { kind: 'negative'; reason: string } | { kind: 'silent' };

/** The tire-pressure receiver of a car by UDS over ISO-TP. */
export function udsLead(channel: CanChannel, receiver: Receiver): VehicleLead {
  const ask = (...bytes: number[]) => exchange(channel, receiver, Uint8Array.from(bytes));

  async function readData(identifier: number, what: string): Promise<Result<Uint8Array>> {
    const answer = await ask(service.readData, ...word(identifier));
    switch (answer.kind) {
      case 'positive':
        return success(answer.data.slice(2));
      case 'negative':
        return failure('car-refused', `The car does not give its ${what}: ${answer.reason}.`);
      case 'silent':
        return failure(
          'car-silent',
          `The car did not answer when asked for its ${what}. Ignition on? Lead seated?`,
        );
    }
  }

  async function write(...bytes: number[]): Promise<WriteAnswer> {
    const session = await ask(service.session, extendedSession);
    // Nothing was written yet, so this is a plain "no", whatever came back.
    if (session.kind !== 'positive') {
      return {
        answer: 'no',
        reason: session.kind === 'negative' ? session.reason : 'the car did not answer; nothing was sent',
      };
    }
    const answer = await ask(...bytes);
    switch (answer.kind) {
      case 'positive':
        return { answer: 'yes' };
      case 'negative':
        return { answer: 'no', reason: answer.reason };
      case 'silent':
        return { answer: 'lost', reason: 'the answer to the write did not arrive' };
    }
  }

  return {
    readVin: async () => {
      const data = await readData(vinIdentifier, 'VIN');
      return data.ok ? success(String.fromCharCode(...data.value)) : data;
    },
    readRegistry: async () => {
      const data = await readData(receiver.registry, 'registered IDs');
      if (!data.ok) return data;
      return understood(decodeRegistry(receiver, data.value), 'registered IDs');
    },
    readCodes: async () => {
      const answer = await ask(
        service.readCodes,
        reportByStatusMask,
        codeStatus.testFailed | codeStatus.confirmed,
      );
      if (answer.kind !== 'positive') {
        return failure('car-silent', 'The car did not give its trouble codes. Ignition on? Lead seated?');
      }
      return success(codesIn(answer.data.slice(2)));
    },
    readLive: async () => {
      const live = await readData(receiver.live, 'live pressures');
      if (!live.ok) return live;
      const speed = await readData(receiver.speed, 'speed');
      if (!speed.ok) return speed;
      const entries = understood(decodeLive(receiver, live.value), 'live pressures');
      return entries.ok ? success({ speedKmh: number(speed.value) / 10, entries: entries.value }) : entries;
    },
    readSupply: async () => {
      const data = await readData(receiver.supply, 'supply voltage');
      if (!data.ok) return data;
      return success({
        volts: number(data.value.slice(0, 2)) / 1000,
        engine: data.value[2] === 1 ? 'on' : 'off',
      });
    },
    writeRegistry: (entries) =>
      write(service.writeData, ...word(receiver.registry), ...encodeRegistry(receiver, entries)),
    readThresholds: async () => {
      if (receiver.thresholds === undefined) return success(undefined);
      const data = await readData(receiver.thresholds, 'lamp thresholds');
      return data.ok ? understood(decodeThresholds(data.value), 'lamp thresholds') : data;
    },
    writeThresholds: async (thresholds) =>
      receiver.thresholds === undefined
        ? { answer: 'no', reason: 'the receiver of this car takes no thresholds' }
        : write(service.writeData, ...word(receiver.thresholds), ...encodeThresholds(thresholds)),
    clearCodes: () => write(service.clearCodes, ...allCodes),
    close: () => channel.close(),
  };
}

const number = (bytes: Uint8Array): number => Number.parseInt(toHex(bytes) || '0', 16);

function understood<Value>(value: Value | undefined, what: string): Result<Value> {
  return value === undefined
    ? failure(
        'car-unclear',
        `The car's ${what} are not laid out as this vehicle's profile says. Check the profile.`,
      )
    : success(value);
}

/** Three bytes a code and one of status (ISO 14229-1, report by status mask). */
function codesIn(data: Uint8Array): Code[] {
  const codes: Code[] = [];
  for (let at = 0; at + 4 <= data.length; at += 4) {
    const [high = 0, low = 0, , status = 0] = data.subarray(at, at + 4);
    codes.push({ code: codeText(high, low), status: status & codeStatus.testFailed ? 'active' : 'stored' });
  }
  return codes;
}

/** One request and its answer; waits on while the module asks for time. */
function exchange(channel: CanChannel, receiver: Receiver, request: Uint8Array): Promise<Exchange> {
  return new Promise((resolve) => {
    if (!channel.isOpen()) return resolve({ kind: 'silent' });
    const reassembly = new Reassembly();
    const { first, rest } = segment(request);
    let unsent = rest;
    let timer = setTimeout(() => finish({ kind: 'silent' }), answerMs);
    const send = (data: Uint8Array) => channel.send({ id: receiver.requestId, data });
    const finish = (result: Exchange) => {
      clearTimeout(timer);
      stop();
      resolve(result);
    };
    const stop = channel.listen(({ id, data }) => {
      if (id !== receiver.answerId) return;
      if (unsent.length > 0 && readFlowControl(data) === 'clear-to-send') {
        unsent.forEach(send);
        unsent = [];
        return;
      }
      const received = reassembly.accept(data);
      if (received.kind === 'flow-control') send(received.data);
      if (received.kind !== 'message') return;
      const answer = readAnswer(request[0] ?? 0, received.message);
      switch (answer.kind) {
        case 'positive':
          return finish({ kind: 'positive', data: answer.data });
        case 'negative':
          return finish({ kind: 'negative', reason: answer.reason });
        case 'pending':
          clearTimeout(timer);
          timer = setTimeout(() => finish({ kind: 'silent' }), pendingMs);
          return;
        case 'stray':
          return;
      }
    });
    send(first);
  });
}
