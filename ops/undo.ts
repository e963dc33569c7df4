/** An end in good order: what was begun is ended, the last first, and nothing keeps the rest waiting for ever. */

/** What is done at the end, the last first. */
export type Undo = (() => void | Promise<void>)[];

/** The longest that one step of the end may take, milliseconds. */
export const longestStep = 10_000;

/** Ends all. A step that fails, or does not end in time, is told of; those after it are done all the same. */
export async function undoAll(undo: Undo, say: (text: string) => void, longest = longestStep): Promise<void> {
  for (const step of undo.splice(0).reverse()) {
    let clock: ReturnType<typeof setTimeout> | undefined;
    const late = new Promise<void>((_, reject) => {
      clock = setTimeout(
        () => reject(new Error(`Something did not end within ${longest / 1000} s; it is left to end by itself.`)),
        longest,
      );
    });
    await Promise.race([(async () => step())(), late]).catch((error: Error) => say(error.message));
    clearTimeout(clock);
  }
}
