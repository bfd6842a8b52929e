export function walkerAt(seconds: number): [lng: number, lat: number];
export function startPosition(port?: number): Promise<{ url: string; stop(): void }>;
