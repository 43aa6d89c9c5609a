import { success } from '../../core/result';
import { clearCodes, readBack, readCar, writeIds, writeThresholds } from '../../services/car';
import {
  addNote,
  bookIn,
  cancelJob,
  confirm,
  editJob,
  handOver,
  historyOf,
  record,
  reopenJob,
  takeBack,
  verdictOf,
  viewJob,
  yard,
} from '../../services/jobs';
import { lookAt, practise } from '../../services/practice';
import { wake } from '../../services/readings';
import type { Works } from '../_http';

/** Jobs: from booking in to handing over. */
export const visitWorks = {
  yard: async () => success(await yard()),
  bookIn: ({ body, who }) => bookIn(body, who),
  job: ({ id }) => viewJob(id),
  editJob: ({ id, body, who }) => editJob(id, body, who),
  verdict: async ({ id }) => {
    const view = await viewJob(id);
    return view.ok ? success(await verdictOf(view.value)) : view;
  },
  record: ({ id, body, who }) => record(id, body, who),
  takeBack: ({ id, body, who }) => takeBack(id, body, who),
  cancelJob: ({ id, body, who }) => cancelJob(id, body, who),
  reopenJob: ({ id, body, who }) => reopenJob(id, body, who),
  history: ({ id }) => historyOf(id),
  wake: ({ id, body, who }) => wake(id, body, who),
  readCar: ({ id, body, who }) => readCar(id, body.key, who),
  writeIds: ({ id, body, who }) => writeIds(id, body, who),
  writeThresholds: ({ id, body, who }) => writeThresholds(id, body, who),
  readBack: ({ id, body, who }) => readBack(id, body.write, who),
  clearCodes: ({ id, body, who }) => clearCodes(id, body.key, who),
  confirm: ({ id, body, who }) => confirm(id, body, who),
  handOver: ({ id, body, who }) => handOver(id, body, who),
  note: ({ id, body, who }) => addNote(id, body, who),
  practiceCar: ({ id }) => lookAt(id),
  practise: ({ id, body, who }) => practise(id, body, who),
} satisfies Partial<Works>;
