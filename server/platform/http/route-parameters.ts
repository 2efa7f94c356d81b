import { getQuery, getRouterParam, type H3Event } from 'h3';
import { NotFound, Refused } from '#server/platform/errors';

/** A number in the path. @throws 404 when it is none */
export function idOf(event: H3Event, name = 'id'): number {
  const id = Number(getRouterParam(event, name));
  if (!Number.isInteger(id) || id < 1 || id > 4_294_967_295) throw new NotFound('There is nothing here.');
  return id;
}

/** A check in the path. @throws 404 when it is none */
export function checkOf(event: H3Event): string {
  const check = getRouterParam(event, 'check') ?? '';
  if (!/^[a-z]+\.[a-z0-9-]{1,80}$/.test(check)) throw new NotFound('There is nothing here.');
  return check;
}

/** The version below which a window begins, from the query; undefined for the newest. */
export function afterVersion(event: H3Event): number | undefined {
  const after = Number(getQuery(event).after);
  return Number.isInteger(after) && after > 0 ? after : undefined;
}

/** The version that a change was made on, from the query; undefined where it is not said. */
export function fromVersion(event: H3Event): number | undefined {
  const from = Number(getQuery(event).from);
  return Number.isInteger(from) && from > 0 ? from : undefined;
}

/** The same for what is saved whole, where a change of somebody else would be lost. @throws Refused */
export function requiredVersion(event: H3Event): number {
  const from = fromVersion(event);
  if (!from) throw new Refused('Say which version this was changed from: ?from= and its number.');
  return from;
}

/** The same for what has a built-in version, which is 0. @throws Refused */
export function templateVersion(event: H3Event): number {
  const from = Number(getQuery(event).from ?? Number.NaN);
  if (!Number.isInteger(from) || from < 0)
    throw new Refused('Say which version this was changed from: ?from= and its number.');
  return from;
}
