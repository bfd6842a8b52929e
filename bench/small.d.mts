export function small(): Promise<void>;
