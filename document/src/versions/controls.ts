/** Control characters, which names may not hold any more. */
const controls = /\p{Cc}+/gu;

/** Control characters in the strings of a value of JSON become spaces; what has none is the very same value. */
export function withoutControls<T>(value: T): T {
  if (typeof value === 'string')
    return (/\p{Cc}/u.test(value) ? value.replace(controls, ' ').trim() || '–' : value) as T;
  if (Array.isArray(value)) {
    const made = value.map(withoutControls);
    return (made.some((inner, i) => inner !== value[i]) ? made : value) as T;
  }
  if (typeof value !== 'object' || value === null) return value;
  const entries = Object.entries(value).map(([key, inner]) => [key, withoutControls(inner)] as const);
  return entries.some(([key, inner]) => inner !== (value as Record<string, unknown>)[key])
    ? (Object.fromEntries(entries) as T)
    : value;
}
