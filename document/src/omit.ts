/** A value without some of what it has. */
export function omit<T extends object, K extends keyof T>(value: T, ...keys: K[]): Omit<T, K> {
  const left = { ...value };
  for (const key of keys) Reflect.deleteProperty(left, key);
  return left;
}
