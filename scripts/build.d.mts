export function buildAll(options?: { web?: boolean }): Promise<void>;
