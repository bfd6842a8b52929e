export declare function startLocateCentre(
  port?: number,
  options?: { silent?: string; hurry?: number },
): Promise<{ url: string; port: number; stop: () => void }>;
