import { success } from '../../core/result';
import { addFollowUp, dueFollowUps, endFollowUp, suggestFollowUps } from '../../services/follow-ups';
import { figuresOfShop } from '../../services/office';
import { mergeVehicles, undoMerge } from '../../services/merges';
import { metElsewhere } from '../../services/past';
import { readOnBench } from '../../services/readings';
import { find, listJobs } from '../../services/search';
import { saveSet, swapSets } from '../../services/wheel-sets';
import type { Works } from '../_http';
import { codesFor, followLabel } from '../../services/labels';

/** What is remembered: found again, followed up, put on file, counted. */
export const recordsWorks = {
  find: async ({ query: { q } }) => success(await find(q)),
  jobs: async ({ query }) => success(await listJobs(query)),
  metElsewhere: ({ id }) => metElsewhere(id),
  saveSet: ({ id, body }) => saveSet(id, body),
  readOnBench: ({ id, body, who }) => readOnBench(id, body, who),
  swapSets: ({ id, body, who }) => swapSets(id, body, who),
  mergeVehicles: ({ id, body, who }) => mergeVehicles(id, body, who),
  undoMerge: ({ id, who }) => undoMerge(id, who),
  label: ({ body: { targets }, who }) => codesFor(targets, who),
  followLabel: ({ query: { code } }) => followLabel(code),
  followUps: async () => success(await dueFollowUps()),
  addFollowUp: ({ body, who }) => addFollowUp(body, who),
  endFollowUp: ({ id, body, who }) => endFollowUp(id, body, who),
  suggestFollowUps: ({ id }) => suggestFollowUps(id),
  shopFigures: ({ query, who }) => figuresOfShop(query, who),
} satisfies Partial<Works>;
