/** What the browser that tests stand in for has, and their stand-in does not. */
import { TextDecoder, TextEncoder } from 'node:util';

globalThis.structuredClone ??= <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
globalThis.TextEncoder ??= TextEncoder as typeof globalThis.TextEncoder;
globalThis.TextDecoder ??= TextDecoder as typeof globalThis.TextDecoder;
