import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { axleOf, inWalkingOrder, isPosition, listWheels, positionName, walkingOrder } from '.';

describe('the walk', () => {
  it('goes clockwise from the driver’s corner, the spare last', () => {
    expect(walkingOrder.map((wheel) => positionName[wheel])).toEqual([
      'left front',
      'right front',
      'right rear',
      'left rear',
      'spare',
    ]);
  });

  it('puts any wheels in order, each once', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...walkingOrder)), (wheels) => {
        const order = inWalkingOrder(wheels);
        expect(new Set(order)).toEqual(new Set(wheels));
        expect(order).toEqual([...order].sort((a, b) => walkingOrder.indexOf(a) - walkingOrder.indexOf(b)));
        expect(order.length).toBe(new Set(wheels).size);
      }),
    );
  });
});

describe('a position', () => {
  it('belongs to an axle', () => {
    expect(walkingOrder.map(axleOf)).toEqual(['front', 'front', 'rear', 'rear', 'spare']);
  });

  it('is one of five', () => {
    expect(['LF', 'SP'].every(isPosition)).toBe(true);
    expect(['lf', 'FL', ''].some(isPosition)).toBe(false);
  });

  it('is listed as one says it', () => {
    expect([
      listWheels([]),
      listWheels(['LF']),
      listWheels(['LF', 'RF']),
      listWheels(['LF', 'RF', 'RR']),
    ]).toEqual(['', 'LF', 'LF and RF', 'LF, RF and RR']);
  });
});
