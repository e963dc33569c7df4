/** Parts of the application that are fetched when they are wanted for the first time, or before, when the page has nothing else to do. */
import { useEffect, useState, type ComponentType, type ReactNode } from 'react';

const rest: (() => Promise<unknown>)[] = [];

/** A part that is fetched later, and what stands in its place until it is there. What has been fetched is drawn at once, with no waiting in between. */
export function later<P extends object>(
  fetch: () => Promise<ComponentType<P>>,
  waiting: ReactNode = null,
): ComponentType<P> & { fetch: () => void } {
  let known: ComponentType<P> | null = null;
  let coming: Promise<ComponentType<P>> | null = null;
  const get = (): Promise<ComponentType<P>> =>
    (coming ??= fetch().then(
      (part) => (known = part),
      (error: unknown) => {
        coming = null;
        throw error;
      },
    ));
  rest.push(get);

  function Later(props: P) {
    const [Part, setPart] = useState(() => known);
    const [failure, setFailure] = useState<unknown>(null);
    useEffect(() => {
      if (Part) return;
      let gone = false;
      get().then(
        (part) => !gone && setPart(() => part),
        (error: unknown) => !gone && setFailure(error),
      );
      return () => {
        gone = true;
      };
    }, [Part]);
    // The page's own boundary says so, and offers to load it again.
    if (failure) throw failure;
    return Part ? <Part {...props} /> : waiting;
  }
  return Object.assign(Later, { fetch: () => void get().catch(() => {}) });
}

/** Fetches all that is left, one after the other, so that it is there when it is wanted; what fails is tried again by then. */
export async function fetchTheRest(): Promise<void> {
  for (const get of rest) await get().catch(() => {});
}
