/** What has to come over the network before anything is shown. */
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { webFolder } from '../web-build.ts';

/** What the page itself loads: its scripts and styles with all that they import at once, gzipped, in kB. */
export async function firstLoad(url: string): Promise<number> {
  const html = await (await fetch(url)).text();
  const wanted = [...html.matchAll(/(?:src|href)="(\/assets\/[^"]+\.(?:js|css))"/g)].map((match) => match[1]!);
  let bytes = gzipSync(html).length;
  const seen = new Set<string>();
  for (const path of wanted) {
    if (seen.has(path)) continue;
    seen.add(path);
    const text = readFileSync(join(webFolder, path));
    bytes += gzipSync(text).length;
    for (const [, imported] of text
      .toString('utf8')
      .matchAll(/(?:^|[;}])import\s*(?:[^"'();]*from\s*)?["']\.\/([^"']+\.js)["']/g))
      wanted.push(`/assets/${imported}`);
  }
  return bytes / 1000;
}
