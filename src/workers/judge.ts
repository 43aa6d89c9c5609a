import { parseJobFile } from '../contract/document';
import type { Assessment } from '../core/judgement/assessment';
import { assess } from '../core/judgement/diagnosis';
import { asJudged } from '../core/tire/gauge';
import { judge } from '../contract/judging';
import { success, type Result } from '../core/result';
import type { Task } from '../services/judging';

/** A thread of the server that judges. */

const assessFile = (text: string): Result<Assessment> => {
  const job = parseJobFile(text);
  return job.ok ? success(assess(asJudged(job.value, []))) : job;
};

export default (task: Task) => (task.what === 'file' ? assessFile(task.text) : judge(task));
