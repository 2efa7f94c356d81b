import { listen } from '#server/live';
import { isSessionGood } from '#server/people';

/** So often a quiet stream says that it lives, and a session that has ended ends it. */
const PULSE_MS = 20_000;

/** What a browser that reads no more may leave waiting here; it opens another stream when it reads again. */
const MOST_UNREAD_BYTES = 512 * 1024;

/** What happens while a browser looks, as server-sent events. */
export default defineEventHandler((event) => {
  const stream = createEventStream(event);
  const personId = event.context.person.id;
  const stop = listen({
    personId,
    send: ({ event: name, data }) => {
      if (event.node.res.writableLength > MOST_UNREAD_BYTES) event.node.res.destroy();
      else void stream.push({ event: name, data: JSON.stringify(data) });
    },
  });
  const pulse = setInterval(() => {
    void isSessionGood(event.context.session ?? '').then(
      (isGood) => (isGood ? stream.push({ event: 'pulse', data: '' }) : stream.close()),
      // the database is away for a moment: the next pulse asks again
      () => undefined,
    );
  }, PULSE_MS);
  stream.onClosed(() => {
    clearInterval(pulse);
    stop();
  });
  return stream.send();
});
