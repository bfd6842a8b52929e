import type { SensorValue } from '@sombra/core';
import { z } from 'zod';

const sensorSchema = z.object({ id: z.string().min(1).max(60), ref: z.string().min(1).max(40) });
export type MoistureSensor = z.infer<typeof sensorSchema>;
const valueSchema = z.object({ at: z.iso.datetime({ offset: true }), share: z.number() });

/** Sensors in balls, by the number of their tree, and what they measured: of what the ball holds at field capacity. */
export interface SensorService {
  sensors(): Promise<MoistureSensor[]>;
  values(sensorId: string, from: Date, until: Date): Promise<SensorValue[]>;
}

const answerWithinMs = 5000;

/** @throws Error where it is not reached, answers with an error, or with what is no value */
export function httpSensors(url: string): SensorService {
  const read = async <S extends z.ZodType>(path: string, schema: S): Promise<z.output<S>> => {
    const response = await fetch(new URL(path, url), { signal: AbortSignal.timeout(answerWithinMs) });
    if (!response.ok) throw new Error(`the sensors answered ${response.status}`);
    return schema.parse(await response.json());
  };
  return {
    sensors: () => read('/sensors', z.array(sensorSchema).max(2000)),
    values: (id, from, until) =>
      read(
        `/sensors/${encodeURIComponent(id)}/values?from=${encodeURIComponent(from.toISOString())}&until=${encodeURIComponent(until.toISOString())}`,
        z.array(valueSchema).max(2000),
      ),
  };
}
