/** Where the web application begins: the project is begun with at once, and the application fetched meanwhile. */
import { begin } from './state/ahead.ts';

begin(location.pathname);
void import('./app.tsx');
