export function postgresPrograms(): string | null;
export function chromiumPath(): string | null;
export function ensurePackage(name: string, title: string, isThere: () => boolean, required: boolean): void;
