/** What the browser that tests stand in for has, and their stand-in does not. */
globalThis.structuredClone ??= <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
