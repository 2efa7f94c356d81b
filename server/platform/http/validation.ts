/** What comes in over the routes, read as classes of fields. */
import { createError } from 'h3';
import { readAs } from '#core/entry/validation';

export * from '#core/entry/validation';

/** A 400 with a sentence for each fault. */
export function refuseFaults(messages: readonly string[]): Error {
  return createError({
    statusCode: 400,
    statusMessage: 'Bad request',
    message: messages.slice(0, 5).join('; '),
    data: { faults: messages.slice(0, 20) },
  });
}

/** Turns foreign JSON into a DTO. @throws a 400 with a sentence for each fault */
export async function parseAs<T extends object>(dto: new () => T, body: unknown): Promise<T> {
  const { value, faults } = await readAs(dto, body);
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return value;
}
