/** What services throw is mapped to a status here, once, whatever route it came through. */
import { answerFor } from '#server/platform/http/answers';

export default defineNitroPlugin((nitro) => {
  const { options } = nitro.h3App;
  const { onError } = options;
  options.onError = (error, event) => {
    const answer = answerFor(error.cause);
    if (answer) Object.assign(error, answer, { unhandled: false, fatal: false });
    return onError?.(error, event);
  };
});
