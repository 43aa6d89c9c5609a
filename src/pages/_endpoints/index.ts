import type { APIContext } from 'astro';
import type { RouteName } from '../../contract';
import type { AnyRoute } from '../../contract/routes';
import type { Works } from '../_http';
import { fileAnswers } from './files';
import { officeWorks } from './office';
import { openAnswers } from './open';
import { recordsWorks } from './records';
import { relearnWorks } from './relearn';
import { shopWorks } from './shop';
import { visitWorks } from './visit';

/** What stands behind every address of the app: a use case, or what answers as it sees fit. */

/** Reads the request, and answers, in its own way. `named`: what the address names. */
export type Answers = (context: APIContext, named: string) => Response | Promise<Response>;

export const answers = { ...openAnswers, ...fileAnswers };

export const works: Omit<Works, keyof typeof answers> = {
  ...visitWorks,
  ...relearnWorks,
  ...shopWorks,
  ...recordsWorks,
  ...officeWorks,
};

/** Every route is one or the other: the compiler names one that is neither. */
type Neither = Exclude<AnyRoute, keyof typeof answers | keyof typeof works>;
export const isWork = (name: AnyRoute): name is RouteName & keyof typeof works =>
  (name in works) satisfies [Neither] extends [never] ? boolean : never;
