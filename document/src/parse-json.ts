/** JSON from outside, read within bounds: so that no text makes the reader run out of stack or memory. */

/** The deepest that values may lie in one another. No document of ours is deeper than a third of it. */
export const deepestJson = 120;

/** The most values that a text may hold. A document of 100,000 openings has about two millions. */
export const mostJsonValues = 5_000_000;

/** The most members of one list or object. No table has so many rows. */
export const mostMembers = 250_000;

const [quote, backslash, comma, openList, closeList, openObject, closeObject] = [34, 92, 44, 91, 93, 123, 125];

/**
 * Reads JSON.
 * @param mostValues the most values that it may hold.
 * @throws Error that says why it is none, or that it is nested too deeply or holds too much.
 */
export function parseJson(text: string, mostValues = mostJsonValues): unknown {
  checkBounds(text, mostValues);
  return JSON.parse(text);
}

/** Looks at brackets and commas alone: whether it is JSON at all is told by the parser. */
function checkBounds(text: string, mostValues: number): void {
  let [depth, values] = [0, 0];
  // Of each value that is open, by its depth: how many members it has so far, but one.
  const members = new Uint32Array(deepestJson + 2);
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === quote) at = endOfString(text, at);
    else if (code === openList || code === openObject) {
      values += 1;
      if (++depth > deepestJson) throw new Error(`values are nested deeper than they may be (${deepestJson})`);
      members[depth] = 0;
    } else if (code === closeList || code === closeObject) depth -= 1;
    else if (code === comma) {
      values += 1;
      if (depth >= 0 && ++members[depth]! >= mostMembers)
        throw new Error(`a list or an object has more members than it may (${mostMembers})`);
    }
    if (values > mostValues) throw new Error(`it holds more values than it may (${mostValues})`);
  }
}

/** Where the string ends that begins at a quotation mark. */
function endOfString(text: string, begin: number): number {
  let at = begin + 1;
  for (;;) {
    const end = text.indexOf('"', at);
    if (end < 0) return text.length;
    let slashes = 0;
    while (text.charCodeAt(end - 1 - slashes) === backslash) slashes += 1;
    if (slashes % 2 === 0) return end;
    at = end + 1;
  }
}
