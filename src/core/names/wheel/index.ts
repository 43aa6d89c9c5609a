/** Wheel positions, left and right as the driver sees them; the spare last. */
export const walkingOrder = ['LF', 'RF', 'RR', 'LR', 'SP'] as const;

/** The order of `walkingOrder` is the way a technician walks: clockwise from the driver's corner. */
export type Position = (typeof walkingOrder)[number];

export type Axle = 'front' | 'rear' | 'spare';

export const roadWheels = ['LF', 'RF', 'RR', 'LR'] as const satisfies readonly Position[];

export function axleOf(position: Position): Axle {
  switch (position) {
    case 'LF':
    case 'RF':
      return 'front';
    case 'RR':
    case 'LR':
      return 'rear';
    case 'SP':
      return 'spare';
  }
}

/** The position in words, for a sentence or a screen reader. */
export const positionName: Record<Position, string> = {
  LF: 'left front',
  RF: 'right front',
  RR: 'right rear',
  LR: 'left rear',
  SP: 'spare',
};

export function isPosition(text: string): text is Position {
  return walkingOrder.some((position) => position === text);
}

/** Sorts into walking order and drops repeats. */
export function inWalkingOrder(positions: Iterable<Position>): Position[] {
  const wanted = new Set(positions);
  return walkingOrder.filter((position) => wanted.has(position));
}

/** "LF", "LF and RF", "LF, RF and RR". */
export function listWheels(positions: readonly Position[]): string {
  const last = positions.at(-1);
  if (last === undefined) return '';
  const rest = positions.slice(0, -1);
  return rest.length === 0 ? last : `${rest.join(', ')} and ${last}`;
}
