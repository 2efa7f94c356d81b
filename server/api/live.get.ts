import { listen } from '../live/live';
import { isSessionGood } from '../people/sessions';

/** So often a quiet stream says that it lives, and a session that has ended ends it. */
const PULSE_MS = 20_000;

/** What happens while a browser looks, as server-sent events. */
export default defineEventHandler((event) => {
  const stream = createEventStream(event);
  const personId = event.context.person.id;
  const stop = listen({
    personId,
    send: ({ event: name, data }) => void stream.push({ event: name, data: JSON.stringify(data) }),
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
