import type { Route } from './contract';

type Page = Pick<Route, 'right' | 'notes'>;

const plain = { right: 'signed-in', notes: 'nothing' } as const;

/** The pages, by their address: who may see each, and what is kept of who looked. */
export const pages = {
  '/': plain,
  '/bench': plain,
  '/book-in': plain,
  '/chain': plain,
  '/devices': plain,
  '/figures': plain,
  // What is asked for there is kept with the question itself.
  '/find': plain,
  '/gauges': plain,
  '/gauges/{id}/check': plain,
  '/jobs/{id}': { right: 'signed-in', notes: { what: 'job', of: 'job' } },
  '/jobs/{id}/labels': plain,
  '/jobs/{id}/sheet': { right: 'signed-in', notes: { what: 'sheet', of: 'job' } },
  '/labels': plain,
  '/procedures': plain,
  '/procedures/edit': plain,
  '/records': plain,
  '/runs/{id}': { right: 'signed-in', notes: { what: 'relearn' } },
  '/sensors/{name}': { right: 'signed-in', notes: { what: 'sensor' } },
  '/setup': plain,
  '/sign-in': { right: 'anybody', notes: 'nothing' },
  '/vehicles/{id}': { right: 'signed-in', notes: { what: 'vehicle', of: 'vehicle' } },
} as const satisfies Record<string, Page>;
