import type { z } from 'zod';
import type { Contract } from './contract';
import { carContracts } from './car';
import { chainContracts } from './chain';
import { doorsContracts } from './doors';
import { figuresContracts } from './figures';
import { memoryContracts } from './memory';
import { peopleContracts } from './people';
import { programmingContracts } from './programming';
import { relearnContracts } from './relearn';
import { shopContracts } from './shop';
import { visitContracts } from './visit';

/** What goes over HTTP: for every use case where it answers, what it takes, what it answers, and what can go wrong. */
export { problemSchema, statusOf } from './problem';
export type { Contract, Look, Route } from './contract';
export type { NewCheck, NewGauge, Profile, StoredProcedure } from './shop';
export type { FiguresOfShop, ShopFiguresAsked } from './figures';
export type { JobFilter } from './memory';
export type { ProgrammingAsked } from './programming';
export type { RunView, Told } from './relearn';
export type { BenchNote, Booking, HeaderChanges } from './visit';

export const contracts = {
  ...visitContracts,
  ...carContracts,
  ...relearnContracts,
  ...programmingContracts,
  ...shopContracts,
  ...peopleContracts,
  ...memoryContracts,
  ...figuresContracts,
  ...doorsContracts,
  ...chainContracts,
} as const satisfies Record<string, Contract>;
type Contracts = typeof contracts;
export type RouteName = keyof Contracts;

/** What is sent to a use case, and what it answers. */
export type BodyOf<Name extends RouteName> = Contracts[Name] extends { body: infer Body extends z.ZodType }
  ? z.infer<Body>
  : undefined;
export type QueryOf<Name extends RouteName> = Contracts[Name] extends { query: infer Query extends z.ZodType }
  ? z.infer<Query>
  : undefined;
export type AnswerOf<Name extends RouteName> = z.infer<Contracts[Name]['answer']>;
