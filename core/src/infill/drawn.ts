/** How patterns are drawn: apart from all else, so that pages that show none need not have it. */
export { patternPicture } from './parts.ts';
