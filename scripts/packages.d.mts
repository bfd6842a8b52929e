export const chromiumPath: string;
