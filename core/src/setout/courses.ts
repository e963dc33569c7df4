/** Courses of masonry, by which openings are set out. */
import type { TextureName } from '@yard-arch/document';

/** Height of a course of a material's texture, metres; null where it has none that openings are set out by. */
export function courseHeightOf(texture: TextureName | undefined): number | null {
  return texture === 'stretcher bond' || texture === 'english bond' ? 0.075 : texture === 'ashlar' ? 0.3 : null;
}
