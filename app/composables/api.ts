/** Calls to our own server. */
import type { InternalApi } from 'nitropack/types';

export type Route = keyof InternalApi & `/api/${string}`;
type MethodOf<R extends Route> = Uppercase<keyof InternalApi[R] & string>;

/** What a route answers, as the route itself says. */
export type Answer<R extends Route, M extends string = 'GET'> =
  Lowercase<M> extends keyof InternalApi[R] ? InternalApi[R][Lowercase<M>] : never;

export interface Call<M> {
  method?: M;
  /** What stands behind the colons of the route. */
  params?: Record<string, string | number>;
  query?: Record<string, string | number | readonly string[] | undefined>;
  body?: unknown;
  /** Whoever asked does not wait for the answer any more. */
  signal?: AbortSignal;
  /** Sent as it is, in place of a body. */
  file?: File;
}

/** What went wrong, in the server's sentence. @param data what a program needs beside it */
export class ApiError extends Error {
  constructor(
    message: string,
    readonly data?: unknown,
  ) {
    super(message);
  }
}

/** The address of a route with its parameters filled in. */
export const addressOf = (route: string, params: Record<string, string | number> = {}): string =>
  route.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(params[name])));

/** The sentence that the server gave, or one of ours. */
function sentenceOf({ statusCode, data }: { statusCode?: number; data?: { message?: string } }): string {
  if (data?.message) return data.message;
  return statusCode
    ? `The server answered ${statusCode}.`
    : 'The server cannot be reached. Is it still running?';
}

function requestOf({ method, query, body, file }: Call<string>) {
  if (file)
    return {
      method: 'POST' as const,
      query,
      body: file,
      headers: {
        'content-type': 'application/octet-stream',
        'x-file-name': encodeURIComponent(file.name),
      },
    };
  const changes = method !== undefined && method !== 'GET';
  return {
    method: (method ?? 'GET') as 'GET',
    query,
    body: body as Record<string, unknown> | undefined,
    headers: changes ? { 'content-type': 'application/json' } : undefined,
  };
}

/**
 * Calls a route; the type of its answer follows from the route. Failures come as an Error with the server's
 * sentence; a lost session leads to sign-in.
 */
export async function api<R extends Route, M extends MethodOf<R> | 'GET' = 'GET'>(
  route: R,
  call: Call<M> = {},
): Promise<Answer<R, M>> {
  try {
    const request: object = { ...requestOf(call), retry: 0, signal: call.signal };
    return await $fetch<Answer<R, M>>(addressOf(route, call.params) as string, request);
  } catch (error) {
    const failure = error as { statusCode?: number; data?: { message?: string; data?: unknown } };
    if (failure.statusCode === 401 && route !== '/api/sign-in' && route !== '/api/password-link')
      await navigateTo(`/sign-in?to=${encodeURIComponent(useRoute().fullPath)}`);
    throw new ApiError(sentenceOf(failure), failure.data?.data);
  }
}
