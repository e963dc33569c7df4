/** How patterns are drawn: apart from all else, so that pages that show none need not have it. */
export { patternFront, patternPicture } from './parts.ts';
