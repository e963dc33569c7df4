/** The page on which the passphrase is asked for. It stands by itself: nothing of the application is given away before it. */
import { html, raw } from 'hono/html';

// The colours are those of the web application's theme.
const style = raw(`
  :root { color-scheme: light; }
  body { margin: 0; min-height: 100vh; display: grid; place-items: center; background: #F4F0E6; color: #1E2A33; font: 16px/1.45 "Barlow", system-ui, sans-serif; }
  main { width: min(360px, calc(100vw - 48px)); background: #FFFDF8; border: 1px solid #D8D0BF; padding: 36px 32px 32px; }
  svg { display: block; margin-bottom: 18px; }
  h1 { font-size: 21px; font-weight: 600; margin: 0 0 6px; }
  p { margin: 0 0 20px; color: #55606A; }
  label { display: block; font-size: 14px; margin-bottom: 6px; color: #55606A; }
  input { box-sizing: border-box; width: 100%; font: inherit; padding: 9px 11px; border: 1px solid #B9B09C; background: #fff; color: inherit; }
  input:focus-visible, button:focus-visible { outline: 2px solid #A5482B; outline-offset: 1px; }
  button { margin-top: 16px; width: 100%; font: inherit; font-weight: 600; padding: 10px; border: 0; background: #1E2A33; color: #fff; cursor: pointer; }
  [role=alert] { margin: 12px 0 0; color: #8C3A20; font-size: 14px; }`);

const mark = raw(
  `<svg width="40" height="40" viewBox="0 0 32 32" aria-hidden="true"><path d="M5 28V17a11 11 0 0 1 22 0v11" fill="none" stroke="#A5482B" stroke-width="4"/><path d="M11 28V17a5 5 0 0 1 10 0v11" fill="none" stroke="#1E2A33" stroke-width="2"/></svg>`,
);

/** @param to the path to go to afterwards. @param trouble why the last try failed, or null. */
export function signInPage(to: string, trouble: string | null) {
  return html`<!doctype html>
    <html lang="en">
      <head>
        <meta charset="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>Sign in · Yard Arch</title>
        <style>
          ${style}
        </style>
      </head>
      <body>
        <main>
          ${mark}
          <h1>Yard Arch</h1>
          <p>This server asks for its passphrase. Whoever runs it knows it.</p>
          <form method="post" action="/sign-in?to=${encodeURIComponent(to)}">
            <label for="passphrase">Passphrase</label>
            <input
              id="passphrase"
              name="passphrase"
              type="password"
              autocomplete="current-password"
              autofocus
              required
              ${trouble ? raw('aria-invalid="true" aria-describedby="trouble"') : ''}
            />
            ${trouble ? html`<p role="alert" id="trouble">${trouble}</p>` : ''}
            <button type="submit">Sign in</button>
          </form>
        </main>
      </body>
    </html>`;
}
