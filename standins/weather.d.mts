export function startWeather(port?: number, storms?: readonly string[]): Promise<{ url: string; stop(): void }>;
