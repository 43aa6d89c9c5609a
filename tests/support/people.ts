import { v7 as newKey } from 'uuid';
import type { Person } from '../../src/core/visit/person';
import { metric } from '../../src/core/measure/units';

/** Somebody who works here; services only look at name and role. */
export const person = (role: Person['role'] = 'technician'): Person => ({
  id: newKey(),
  name: `Somebody, ${role}`,
  role,
  units: metric,
  ownUnits: true,
  secondFactor: 'none',
});
