import type { Route } from './contract';

/** What is sent as it is: files, pictures, news. */
export const files = {
  sheetPdf: {
    at: ['GET', '/api/jobs/{id}/sheet.pdf'],
    right: 'signed-in',
    notes: { what: 'sheet', of: 'job' },
    of: 'job',
  },
  jobEvents: { at: ['GET', '/api/jobs/{id}/events'], right: 'signed-in', notes: 'nothing', of: 'job' },
  jobLines: { at: ['GET', '/api/jobs.jsonl'], right: 'signed-in', notes: { what: 'jobs as JSON Lines' } },
  table: { at: ['GET', '/api/tables/{name}.csv'], right: 'signed-in', notes: { what: 'list as CSV' } },
  photo: { at: ['GET', '/api/photos/{name}'], right: 'signed-in', notes: 'nothing' },
  vehicleFile: {
    at: ['GET', '/api/vehicles/{id}/file'],
    right: 'signed-in',
    notes: { what: 'vehicle file', of: 'vehicle' },
    of: 'vehicle',
  },
  labelsPdf: { at: ['GET', '/api/labels.pdf'], right: 'signed-in', notes: 'nothing' },
  openApi: { at: ['GET', '/api/openapi.json'], right: 'anybody', notes: 'nothing' },
  signOut: { at: ['POST', '/api/sign-out'], right: 'signed-in', notes: 'nothing', inOwnShop: true },
} as const satisfies Record<string, Route>;
