import { success } from '../../core/result';
import { listParts, saveParts } from '../../services/parts';
import { lookIntoBox } from '../../services/practice';
import { answerFlag, procedureFlags } from '../../services/procedures';
import { noteProgrammed, programSensor, readSensorBack } from '../../services/programming';
import {
  flagProcedure,
  hearCar,
  readInRun,
  startRun,
  tellRun,
  tryDry,
  viewRun,
  wakeInRun,
  writeInRun,
} from '../../services/runs';
import { serviceSensor } from '../../services/sensor-services';
import type { Works } from '../_http';

/** Teaching the car its sensors, and programming them. */
export const relearnWorks = {
  startRun: ({ id, body, who }) => startRun(id, body, who),
  run: ({ id }) => viewRun(id),
  tellRun: ({ id, body, who }) => tellRun(id, body.told, who),
  wakeInRun: ({ id, body, who }) => wakeInRun(id, body, who),
  readInRun: ({ id, body, who }) => readInRun(id, body, who),
  writeInRun: ({ id, body, who }) => writeInRun(id, body, who),
  flagProcedure: ({ id, body, who }) => flagProcedure(id, body, who),
  procedureFlags: async () => success(await procedureFlags()),
  answerFlag: ({ id, body, who }) => answerFlag(id, body, who),
  tryDry: ({ id, body, who }) => tryDry(id, body, who),
  hearCar: ({ id }) => hearCar(id),
  parts: async () => success(await listParts()),
  saveParts: ({ body, who }) => saveParts(body, who),
  programSensor: ({ id, body, who }) => programSensor(id, body, who),
  noteProgrammed: ({ id, body, who }) => noteProgrammed(id, body, who),
  readSensorBack: ({ id, body, who }) => readSensorBack(id, body, who),
  serviceSensor: ({ id, body, who }) => serviceSensor(id, body, who),
  practiceBox: () => lookIntoBox(),
} satisfies Partial<Works>;
