import { z } from 'zod';
import { byFileSchema } from '../../names/by-file';
import { walkingOrder } from '../../names/wheel';

/** A photograph goes along as a data URL, scaled down; of so many characters at most: 300 kB as base64. */
const mostPhoto = 420_000;

/** Only what a browser draws anew: a picture without what a camera wrote into it. */
const photoSchema = z
  .string()
  .max(mostPhoto, 'this picture is larger than 300 kB')
  .regex(/^data:image\/jpeg;base64,[A-Za-z0-9+/]+=*$/, 'this is no JPEG picture');

export const sensorServiceSchema = z.looseObject({
  key: z.string().min(1).max(64),
  wheel: z.enum(walkingOrder),
  at: z.iso.datetime({ offset: true }),
  by: z.string().max(200).optional(),
  byFile: byFileSchema.optional(),
  /** The article fitted, and the kit that renewed core, cap, seal and nut. */
  part: z.string().max(120).optional(),
  kit: z.string().max(120).optional(),
  /** What the wrench was set to, Nm. */
  torqueNm: z
    .looseObject({ nut: z.number().min(0).max(50).optional(), screw: z.number().min(0).max(50).optional() })
    .optional(),
  /** The steps that were confirmed. */
  done: z.array(z.string().max(40)).max(40),
  /** As it is printed on the sensor. */
  printedId: z.string().max(64).optional(),
  photo: photoSchema.optional(),
  /** What the customer did not want, in their words or ours. */
  declined: z.string().max(500).optional(),
});

/** The service of a sensor at one wheel, as it is kept: what was done, with which kit and torque, and the printed ID. */
export type SensorService = z.infer<typeof sensorServiceSchema>;
