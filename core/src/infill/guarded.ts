/** Parts are built under guard: one that fails is left out and told of, and the rest of the model stands. */
import { troubleOf } from '../trouble.ts';

/** What was built, or why it could not be, in words to follow the opening's mark. */
export function guarded<T>(what: string, build: () => T | string): T | string {
  try {
    return build();
  } catch (error) {
    return troubleOf(`its ${what} cannot be built`, error).reason;
  }
}
