/** Answers that go on: server-sent events, and results piece by piece. */
import type { Context } from 'hono';
import { stream, streamSSE } from 'hono/streaming';

/** Proxies close connections that are silent for long, milliseconds. */
const silence = 25_000;

/** An event, or the last one. */
export interface Told {
  event: string;
  data: unknown;
  last?: boolean;
}

/**
 * Answers with server-sent events; of one kind only the newest is told to a reader who is slow.
 * @param begin begins to listen; it is given what to call with each event. @returns what ends it.
 */
export async function answerEvents(
  c: Context,
  begin: (tell: (told: Told) => void) => Promise<() => void>,
): Promise<Response> {
  const waiting = new Map<string, Told>();
  let wake = (): void => {};
  let over = false;
  const end = await begin((told) => {
    waiting.set(told.event, told);
    wake();
  });
  return streamSSE(c, async (events) => {
    events.onAbort(() => {
      over = true;
      end();
      wake();
    });
    while (!over) {
      const next = waiting.values().next().value;
      if (next) {
        waiting.delete(next.event);
        await events.writeSSE({ event: next.event, data: JSON.stringify(next.data) });
        if (next.last) break;
        continue;
      }
      const woken = await new Promise<boolean>((resolve) => {
        const still = setTimeout(() => resolve(false), silence).unref();
        wake = () => (clearTimeout(still), resolve(true));
        if (over || waiting.size > 0) wake();
      });
      if (!woken) await events.writeSSE({ event: 'still', data: '' });
    }
    end();
  });
}

/** Answers with bytes as they come, at the pace of whoever takes them. */
export function answerPieces(c: Context, pieces: AsyncIterable<Uint8Array>, headers: Record<string, string>): Response {
  for (const [name, value] of Object.entries(headers)) c.header(name, value);
  return stream(c, async (out) => {
    let over = false;
    out.onAbort(() => {
      over = true;
    });
    for await (const piece of pieces) {
      if (over) return;
      await out.write(piece);
    }
  });
}
