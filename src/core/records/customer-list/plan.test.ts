import { describe, expect, it } from 'vitest';
import type { ListEntry } from '.';
import { planOf, type KnownCar } from './plan';

const entry = (row: number, name: string, more: Partial<ListEntry> = {}): ListEntry => ({
  row,
  name,
  phone: null,
  email: null,
  vehicle: null,
  ...more,
});
const car = (plate: string) => ({ plate, vin: null, label: 'Vehicle', modelYear: null });
const onFile = (plate: string, owner: KnownCar['owner']): KnownCar => ({
  id: plate,
  plate,
  vin: null,
  owner,
});
const ada = { id: 'ada', name: 'Ada Quill', phone: '+1 555 0100' };

describe('bringing a list in', () => {
  it('makes one customer of all their rows', () => {
    const plan = planOf(
      [entry(2, 'Ada Quill', { vehicle: car('A1') }), entry(3, 'ada quill', { vehicle: car('A2') })],
      [],
      [],
    );
    expect(plan.customers).toHaveLength(1);
    expect(plan.cars.map(({ owner }) => owner)).toEqual([{ made: 0 }, { made: 0 }]);
  });

  it('takes the same name with the same phone, however it is written, for one on file; with another it is a namesake', () => {
    const rows = [
      entry(2, 'Ada Quill', { phone: '+1 (555) 01-00' }),
      entry(3, 'Ada Quill', { phone: '+1 555 0999' }),
    ];
    const plan = planOf(rows, [ada], []);
    expect(plan.onFile).toBe(1);
    expect(plan.customers.map(({ phone }) => phone)).toEqual(['+1 555 0999']);
  });

  it('gives a car on file its owner where it has none, and leaves it to whose it is', () => {
    const cars = [onFile('A1', null), onFile('A2', { id: 'bo', name: 'Bo Lund' }), onFile('A3', ada)];
    const rows = ['A1', 'A2', 'A3'].map((plate, n) => entry(n + 2, 'Ada Quill', { vehicle: car(plate) }));
    const plan = planOf(rows, [ada], cars);
    expect(plan.given).toEqual([{ car: 'A1', owner: { known: 'ada' } }]);
    expect(plan.refused).toEqual([
      { row: 3, reason: 'this vehicle is Bo Lund’s here: change that first, or leave the row out' },
    ]);
    expect(plan.onFile).toBe(1);
    expect(plan.customers).toEqual([]);
  });
});
