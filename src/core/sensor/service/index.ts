import type { Job } from '../../job';
import type { Part } from '../part';
import { torqueWords } from '../part/words';
import { programmedFor } from '../../job/car-write';
import { groupedId } from '../../names/sensor-id';
import type { Position } from '../../names/wheel';
import type { SensorService } from '../../job/schemas/sensor-service';

/** What a technician says of a service: all but who it was. */
export type Serviced = Pick<
  SensorService,
  'wheel' | 'at' | 'part' | 'kit' | 'torqueNm' | 'done' | 'printedId' | 'photo' | 'declined'
>;

/** What hands do, in their order (common practice; the maker's instruction comes first). */
export const serviceSteps = [
  'deflated',
  'bead',
  'head',
  'printed-id',
  'stem',
  'sensor',
  'kit',
  'mounted',
  'inflated',
  'tight',
  'balanced',
  'nuts',
] as const;
export type ServiceStep = (typeof serviceSteps)[number];

/** The last service that was kept for a wheel. */
export const serviceOf = (
  { sensorServices = [] }: Pick<Job, 'sensorServices'>,
  wheel: Position,
): SensorService | undefined => sensorServices.findLast((service) => service.wheel === wheel);

/** Steps of a service nobody has confirmed, in the order of hands. */
export const openSteps = ({ done }: Pick<SensorService, 'done'>): ServiceStep[] =>
  serviceSteps.filter((step) => !done.includes(step));

/** Each step as an instruction for a part; torque only where the catalogue has it, never by feel. */
export function stepInstruction(step: ServiceStep, part: Part | undefined): string {
  const torque = part ? torqueWords(part) : [];
  const at = (what: string) => torque.find((words) => words.startsWith(what));
  const stemOf = part?.stem;
  switch (step) {
    case 'deflated':
      return 'Let the tire down fully through the core, before the nut is loosened or the bead broken';
    case 'bead':
      return 'Break the bead away from the sensor';
    case 'head':
      return 'Keep the mount head off the sensor: turn until it is clear';
    case 'printed-id':
      return 'Photograph or type the printed ID before the tire goes on';
    case 'stem':
      return stemOf === 'rubber'
        ? 'Pull the new rubber stem in straight, not so hard that it tears'
        : `Stem first, then the nut${at('stem nut') ? `: ${at('stem nut')}` : ' to the maker’s torque'}`;
    case 'sensor':
      return `Sensor onto the stem, free of the rim${at('sensor screw') ? `: ${at('sensor screw')}` : ', to the maker’s torque'}`;
    case 'kit':
      return `New core, cap, seal and nut${part?.kit ? ` (kit ${part.kit})` : ''}; a plastic cap, never a metal one`;
    case 'mounted':
      return 'Mount the tire, the bead last at the sensor';
    case 'inflated':
      return `Inflate with a clip-on chuck, clear of the sidewall; the core in${at('core') ? `: ${at('core')}` : ' to the maker’s torque'}`;
    case 'tight':
      return 'Look for leaks at stem, core and bead with soapy water';
    case 'balanced':
      return 'Balance the wheel';
    case 'nuts':
      return 'Wheel nuts to torque; checked again after about 100 km';
  }
}

/** What it says against the ID the sensor should have; undefined where nothing is known or they agree. */
export const expectedPrint = (job: Job, wheel: Position): string | undefined =>
  programmedFor(job, wheel)?.mode === 'new' ? undefined : programmedFor(job, wheel)?.asked.id;

/** What was done, as it stands on the sheet: nothing that nobody confirmed. */
export function serviceWords({
  wheel,
  declined,
  part,
  kit,
  torqueNm,
  printedId,
  done,
}: SensorService): string {
  if (declined)
    return `Sensor at ${wheel}: declined. ${declined} The lamp stays on while a sensor is missing.`;
  const open = openSteps({ done });
  return [
    `Sensor at ${wheel} serviced`,
    part && `part ${part}`,
    kit && `kit ${kit}`,
    torqueNm?.nut !== undefined && `stem nut ${torqueNm.nut} Nm`,
    printedId && `printed ID ${groupedId(printedId)}`,
    open.length > 0 && `${open.length} of ${serviceSteps.length} steps not confirmed`,
  ]
    .filter(Boolean)
    .join(', ')
    .concat('.');
}
