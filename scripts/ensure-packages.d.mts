export const ROOT: string
export function ensurePackages(): void
