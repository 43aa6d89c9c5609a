import { z } from 'zod';
import { createDocument, type ZodOpenApiPathsObject } from 'zod-openapi';
import { assessmentSchema } from '../core/judgement/assessment/schema';
import { jobSchema } from '../core/job/schema';
import type { ProblemCode } from '../core/result';
import { contracts, problemSchema, statusOf, type Contract } from '.';

/** The published description of the API, made from the contracts: OpenAPI 3.1. */

/** What any request can meet. */
const ofAny: readonly ProblemCode[] = ['server-error', 'busy', 'unreadable-record'];
const ofSignedIn: readonly ProblemCode[] = ['not-signed-in'];
const ofRights: readonly ProblemCode[] = ['not-allowed', 'second-factor-first'];
const ofSent: readonly ProblemCode[] = ['invalid-input', 'not-json', 'too-large', 'foreign-origin'];

export function openApi() {
  const paths: ZodOpenApiPathsObject = {};
  for (const [name, contract] of Object.entries<Contract>(contracts)) {
    const [method, path] = contract.at;
    const isOpen = contract.right === 'anybody';
    const problems = [
      ...ofAny,
      ...(isOpen ? [] : ofSignedIn),
      ...(isOpen || contract.right === 'signed-in' ? [] : ofRights),
      ...(contract.body ? ofSent : []),
      ...(contract.query ? (['invalid-input'] as const) : []),
      ...contract.problems,
    ];
    paths[path] = {
      ...paths[path],
      [method.toLowerCase()]: {
        operationId: name,
        summary: contract.summary,
        ...(isOpen && { security: [] }),
        requestParams: {
          ...(path.includes('{id}') && { path: z.object({ id: z.uuid() }) }),
          ...(contract.query && { query: contract.query }),
        },
        ...(contract.body && {
          requestBody: { required: true, content: { 'application/json': { schema: contract.body } } },
        }),
        responses: {
          '200': { description: 'Done', content: { 'application/json': { schema: contract.answer } } },
          ...Object.fromEntries(
            [...byStatus(problems)].map(([status, codes]) => [
              String(status),
              { description: codes.join(', '), content: { 'application/json': { schema: problemSchema } } },
            ]),
          ),
        },
      },
    };
  }
  return createDocument({
    openapi: '3.1.0',
    info: {
      title: 'Hacienda',
      version: '1.0.0',
      description:
        'Jobs of a tire shop: what was seen, what follows, what was written to a car. Whatever changes something carries a key: sent twice, it is done once.',
    },
    security: [{ session: [] }],
    components: {
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'hacienda_session' } },
      schemas: { Job: jobSchema, Assessment: assessmentSchema, Problem: problemSchema },
    },
    paths,
  });
}

function byStatus(problems: readonly ProblemCode[]): Map<number, ProblemCode[]> {
  const codes = new Map<number, ProblemCode[]>();
  for (const code of new Set(problems))
    codes.set(statusOf[code], [...(codes.get(statusOf[code]) ?? []), code]);
  return codes;
}
