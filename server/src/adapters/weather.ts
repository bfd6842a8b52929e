import { z } from 'zod';

const stationSchema = z.object({
  id: z.string().min(1).max(40),
  name: z.string().min(1).max(80),
  position: z.tuple([z.number().min(-180).max(180), z.number().min(-90).max(90)]),
});
export type Station = z.infer<typeof stationSchema>;

const hourSchema = z.object({
  at: z.iso.datetime({ offset: true }),
  source: z.enum(['recorded', 'forecast']),
  rainMm: z.number().min(0).max(500),
  temperatureC: z.number().min(-60).max(60),
  humidityPct: z.number().min(0).max(100),
  gustMs: z.number().min(0).max(120),
  thunderKm: z.number().min(0).max(200).nullable(),
  soilC: z.number().min(-40).max(60).nullable(),
});
export type StationHour = z.infer<typeof hourSchema>;

/** Stations of the place, and what they measured and forecast; units are those the names say. */
export interface WeatherService {
  stations(): Promise<Station[]>;
  hours(stationId: string, from: Date, hours: number): Promise<StationHour[]>;
}

const answerWithinMs = 5000;

/** @throws Error where it is not reached, answers with an error, or with what is no weather */
export function httpWeather(url: string): WeatherService {
  const read = async <S extends z.ZodType>(path: string, schema: S): Promise<z.output<S>> => {
    const response = await fetch(new URL(path, url), { signal: AbortSignal.timeout(answerWithinMs) });
    if (!response.ok) throw new Error(`the weather service answered ${response.status}`);
    return schema.parse(await response.json());
  };
  return {
    stations: () => read('/stations', z.array(stationSchema).max(200)),
    hours: (id, from, hours) =>
      read(
        `/stations/${encodeURIComponent(id)}/hours?from=${encodeURIComponent(from.toISOString())}&hours=${hours}`,
        z.array(hourSchema).max(2400),
      ),
  };
}
