/** The API alone, for npm run dev, which starts it anew when its files change. */
import { listen, makeApplication, openServices } from '@yard-arch/server';

const { YARD_DATABASE_URL, YARD_API_PORT } = process.env;
if (!YARD_DATABASE_URL || !YARD_API_PORT) throw new Error('This is started by npm run dev.');
await listen(
  makeApplication({ services: await openServices(YARD_DATABASE_URL), web: null }),
  '127.0.0.1',
  Number(YARD_API_PORT),
);
