/** Where the web application begins: the project is begun with at once, and the application fetched meanwhile. */
import { begin } from './editor/ahead.ts';

begin(location.pathname);
void import('./app.tsx');
