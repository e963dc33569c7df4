/** New ids for rows: short, unlike each other, and safe in a path. */

const alphabet = '0123456789abcdefghijklmnopqrstuvwxyz';

/** A new id with a prefix that tells its table, such as `o-4f7k2m9x1c`. */
export function newId(prefix: string): string {
  const bytes = crypto.getRandomValues(new Uint8Array(10));
  return `${prefix}-${Array.from(bytes, (byte) => alphabet[byte % alphabet.length]).join('')}`;
}
