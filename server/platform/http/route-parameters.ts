import { getRouterParam, type H3Event } from 'h3';
import { refuse } from './failure';

/** A number in the path. @throws 404 when it is none */
export function idOf(event: H3Event): number {
  const id = Number(getRouterParam(event, 'id'));
  if (!Number.isInteger(id) || id < 1 || id > 4_294_967_295) throw refuse(404, 'There is nothing here.');
  return id;
}

/** A name in the path. @throws 404 when it cannot be read */
export function nameOf(event: H3Event): string {
  try {
    return decodeURIComponent(getRouterParam(event, 'name') ?? '');
  } catch {
    throw refuse(404, 'There is nothing here.');
  }
}
