import type { PartKind } from '../../catalogue/finding';

/** What each part of a car is called, and whether every wheel has one. */
export const parts: Record<PartKind, { name: string; perWheel: boolean }> = {
  tire: { name: 'Tire', perWheel: true },
  sensor: { name: 'Sensor', perWheel: true },
  id: { name: 'ID in the car', perWheel: true },
  order: { name: 'Order of the wheels', perWheel: false },
  receiver: { name: 'Receiver', perWheel: false },
  lamp: { name: 'Lamp', perWheel: false },
  rolling: { name: 'Size and wear', perWheel: true },
  reference: { name: 'Reset', perWheel: false },
  'wheel-speed': { name: 'Wheel-speed sensors', perWheel: false },
};

export const isPerWheel = (kind: PartKind): boolean => parts[kind].perWheel;
