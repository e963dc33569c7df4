/** Saving a file that the page has made, or follows a link to, as a download. */

function follow(href: string, name: string): void {
  const link = Object.assign(document.createElement('a'), { href, download: name });
  link.click();
}

/** Saves text under a name. */
export function saveFile(name: string, type: string, text: string): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  // Signs that one system or another does not take in names.
  follow(url, name.replace(/[\\/:*?"<>|\p{Cc}]+/gu, '-'));
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}

/** Saves what the server answers with, under the name that it gives. */
export function saveFrom(url: string): void {
  follow(url, '');
}
