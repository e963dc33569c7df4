/** Names in files: such as every system and reader takes, and no two alike. */

/** The longest name, in characters. */
const longest = 60;

/** A name that can stand in a line of a text format and be a file's: letters, digits, dashes and dots within, nothing that ends a line or leads elsewhere. */
export function safeName(name: string): string {
  const safe = name
    .normalize('NFC')
    .replace(/[^\p{L}\p{N}.-]+/gu, '_')
    .replace(/\.{2,}/g, '.')
    .replace(/^[_.-]+|[_.-]+$/g, '');
  return (
    [...safe]
      .slice(0, longest)
      .join('')
      .replace(/[_.-]+$/, '') || 'unnamed'
  );
}

/** Gives each thing a name of its own: of those that would be alike, also where a system does not tell capitals from small letters, the second gets a number. */
export class Names {
  private readonly byId = new Map<string, string>();
  private readonly taken = new Set<string>();

  /** @param made what a name becomes first, and what stands before a number. */
  constructor(
    private readonly made: (name: string) => string = safeName,
    private readonly between = '_',
  ) {}

  /** The name of a thing; the same one each time. */
  of(id: string, name: string): string {
    const known = this.byId.get(id);
    if (known !== undefined) return known;
    const first = this.made(name);
    let given = first;
    for (let n = 2; this.taken.has(given.toLowerCase()); n++) given = `${first}${this.between}${n}`;
    this.taken.add(given.toLowerCase());
    this.byId.set(id, given);
    return given;
  }
}
