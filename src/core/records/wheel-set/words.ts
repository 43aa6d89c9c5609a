import { listWheels } from '../../names/wheel';
import type { AfterSwap, Place, Season } from '.';
import type { TireState } from './tire';

export const seasonWords: Record<Season, string> = {
  summer: 'summer',
  winter: 'winter',
  'all-season': 'all seasons',
  spare: 'spare',
};

export const placeWords: Record<Place, string> = {
  car: 'on the car',
  shop: 'in our store',
  customer: 'at the customer’s',
  gone: 'scrapped or sold',
};

export const tireStateWords: Record<TireState, string> = {
  good: 'good',
  worn: 'worn: replace before the season',
  spent: 'under the legal tread: not on the road',
  old: 'too old: replace',
  ageing: 'ageing: look at it each year',
  'not-known': '',
};

/** What follows from putting a set on, in one sentence. */
export function afterSwapWords(after: AfterSwap): string {
  switch (after.needs) {
    case 'read':
      return `This car holds ${after.sets} sets. Read it: where it holds these IDs, nothing is registered.`;
    case 'teach':
      return after.wheels.length > 0
        ? `This car holds one set: register or relearn ${listWheels(after.wheels)}.`
        : 'This car holds one set, and no ID of these wheels is on file: wake them first.';
    case 'reset':
      return 'This car compares wheel speeds: set the pressures cold, then reset the system.';
    case 'nothing':
      return 'Nothing monitors these tires.';
  }
}
