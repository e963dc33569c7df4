/** Names of files that are downloaded. */

/** Names that one system or another keeps for its devices. */
const taken = /^(con|prn|aux|nul|com\d|lpt\d)$/;

/** The longest name without its ending, in bytes: systems take 255 with all endings that they add. */
const longest = 120;

/** A file name made of a project's name, which every system can save: letters, digits and dashes, of bounded length. */
export function fileName(name: string, ending: string): string {
  let stem = name
    .normalize('NFC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '');
  while (Buffer.byteLength(stem) > longest) stem = [...stem].slice(0, -1).join('');
  stem = stem.replace(/-$/, '');
  return `${stem === '' || taken.test(stem) ? `project${stem && `-${stem}`}` : stem}.${ending}`;
}

/** The header by which a download gets its name: in ASCII for the old, in UTF-8 for the rest (RFC 6266). */
export function attachment(name: string): string {
  const plain = name
    .normalize('NFD')
    .replace(/\p{M}+/gu, '')
    .replace(/[^\x20-\x7e]|["\\%]/g, '_');
  const encoded = encodeURIComponent(name).replace(
    /['()*!]/g,
    (sign) => `%${sign.charCodeAt(0).toString(16).toUpperCase()}`,
  );
  return `attachment; filename="${plain}"; filename*=UTF-8''${encoded}`;
}
