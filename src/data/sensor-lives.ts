import { QueryTypes } from 'sequelize';
import { z } from 'zod';
import { canonicalId } from '../core/names/sensor-id';
import type { SeenAtAge } from '../core/sensor/life/lifetimes';
import { database } from './database';

/** So many of the last visits are counted: those of ten years in a shop, and the newest in a chain. */
const mostVisits = 20_000;

/** The part each sensor was that was programmed here, by its ID as it is compared. */
async function partsFitted(): Promise<Map<string, string>> {
  const rows = await database().query<{ id: string; part: string }>(
    `SELECT canonical_id(body -> 'readBack' ->> 'id') AS id, max(body ->> 'part') AS part FROM car_writes
     WHERE kind = 'sensor' AND body ->> 'part' IS NOT NULL AND body -> 'readBack' ->> 'id' IS NOT NULL
     GROUP BY canonical_id(body -> 'readBack' ->> 'id')`,
    { type: QueryTypes.SELECT },
  );
  return new Map(rows.map(({ id, part }) => [id, part]));
}

const sensorsSchema = z.array(
  z.looseObject({ id: z.string(), wheel: z.string().optional(), ageYears: z.number().optional() }),
);
const partsSchema = z.array(
  z.looseObject({ part: z.string(), wheel: z.string().optional(), was: z.string() }),
);

/** What the last visits say of the sensors whose age is on file, and which of them turned out to have ended. */
export async function sensorsSeenAtAges(): Promise<SeenAtAge[]> {
  const partOf = await partsFitted();
  const rows = await database().query<{ sensors: unknown; parts: unknown; mhz: unknown }>(
    `SELECT header -> 'sensors' AS sensors, header -> 'vehicle' -> 'tpms' -> 'frequencyMHz' AS mhz, (
       SELECT parts FROM confirmations WHERE job_id = jobs.id AND by_file IS NULL ORDER BY seq DESC LIMIT 1
     ) AS parts
     FROM jobs WHERE state = 'handed-over' ORDER BY opened_at DESC LIMIT ${mostVisits}`,
    { type: QueryTypes.SELECT },
  );
  return rows.flatMap((row) => {
    const sensors = sensorsSchema.safeParse(row.sensors);
    // A record in a shape nobody knows says nothing of its sensors.
    if (!sensors.success) return [];
    const parts = partsSchema.safeParse(row.parts);
    const hasEnded = (wheel: string | undefined) =>
      parts.success &&
      parts.data.some(
        ({ part, was, wheel: at }) =>
          part === 'sensor' && at === wheel && (was === 'sensor-silent' || was === 'sensor-battery-low'),
      );
    return sensors.data.flatMap(({ id, wheel, ageYears }) =>
      ageYears === undefined
        ? []
        : [
            {
              sensorId: id,
              ageYears,
              ended: wheel !== undefined && hasEnded(wheel),
              part: partOf.get(canonicalId(id)),
              carrier: typeof row.mhz === 'number' ? `${row.mhz} MHz` : undefined,
            },
          ],
    );
  });
}
