/** Ends work when the browser that asked for it has gone. */
import { setMaxListeners } from 'node:events';
import type { H3Event } from 'h3';
import { Unreachable } from '#server/platform/errors';

/** A signal that is aborted when the answer can no longer be sent. */
export function abortOnDisconnect(event: H3Event): AbortSignal {
  const left = new AbortController();
  setMaxListeners(0, left.signal);
  const { res } = event.node;
  res.once('close', () => {
    if (!res.writableFinished) left.abort(new Unreachable('Whoever asked for it has left.'));
  });
  return left.signal;
}
