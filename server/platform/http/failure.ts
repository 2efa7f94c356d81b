import { createError } from 'h3';

/** A refusal with a sentence for the screen. */
export function refuse(statusCode: 400 | 401 | 403 | 404 | 409 | 429 | 502 | 503, message: string): Error {
  const names = {
    400: 'Bad request',
    401: 'Not signed in',
    403: 'Forbidden',
    404: 'Not found',
    409: 'Conflict',
    429: 'Too many requests',
    502: 'Bad gateway',
    503: 'Unavailable',
  };
  return createError({ statusCode, statusMessage: names[statusCode], message });
}
