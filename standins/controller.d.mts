export function startController(port?: number): Promise<{ url: string; stop(): void }>;
