/** What a browser that opens an address is shown where that fails: plain, without scripts. Others get JSON as before. */
import { getHeader, send, setResponseHeader, setResponseHeaders, setResponseStatus } from 'h3';
import type { NitroErrorHandler } from 'nitropack';
import { escapeText } from '#core/recipes/markup';

/** What is said of a status where the error itself says nothing for people. */
const SAID: Record<number, string> = {
  404: 'There is no such page.',
  503: 'Armband cannot answer just now. It starts, or its database is away; try again in a moment.',
};
const OTHERWISE = 'Something went wrong here. Try again; the log of the server says what it was.';

const pageOf = (status: number, message: string): string => `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta name="robots" content="noindex">
<title>${status} – Armband</title>
<style>
:root { color-scheme: light dark; }
body { margin: 0; padding: 15vh 24px; background: #f6f4ef; color: #1b2430; font: 16px/1.5 system-ui, sans-serif; }
main { max-width: 480px; margin: auto; padding: 24px; background: #fff; border: 1px solid #d9d4c8; border-radius: 4px; }
h1 { margin: 0 0 8px; font-size: 20px; }
a { color: #3a3f8f; }
@media (prefers-color-scheme: dark) {
  body { background: #14181f; color: #e8e6e0; }
  main { background: #1c222b; border-color: #323a45; }
  a { color: #9aa0f0; }
}
</style>
</head>
<body><main><h1>${status === 404 ? 'Not found' : 'Not available'}</h1><p>${escapeText(message)}</p><p><a href="/">To the roster</a></p></main></body>
</html>
`;

const handler: NitroErrorHandler = async (error, event, { defaultHandler }) => {
  const isOpened = (getHeader(event, 'accept') ?? '').includes('text/html');
  if (event.handled || !isOpened || getHeader(event, 'sec-fetch-mode') === 'cors') return;
  // it writes to the log what nobody expected
  const { headers } = await defaultHandler(error, event, { json: true });
  const status = error.statusCode || 500;
  // what was thrown on purpose is a sentence for people
  const message = error.unhandled || !error.message ? (SAID[status] ?? OTHERWISE) : error.message;
  const { 'content-type': _, 'content-security-policy': __, ...kept } = headers as Record<string, string>;
  setResponseHeaders(event, kept);
  setResponseStatus(event, status);
  setResponseHeader(event, 'content-type', 'text/html; charset=utf-8');
  await send(event, pageOf(status, status === 404 ? SAID[404]! : message));
};
export default handler;
