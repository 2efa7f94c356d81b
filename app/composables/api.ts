/**
 * Calls to our own server. Failures come back as an Error with the server's sentence; a lost session leads to
 * sign-in.
 */
export async function api<T>(
  path: string,
  options: { method?: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'; body?: unknown; file?: File } = {},
): Promise<T> {
  try {
    if (options.file)
      return await $fetch<T>(path, {
        method: 'POST',
        body: options.file,
        headers: {
          'content-type': 'application/octet-stream',
          'x-file-name': encodeURIComponent(options.file.name),
        },
        retry: 0,
      });
    return await $fetch<T>(path, {
      method: options.method ?? 'GET',
      body: options.body as Record<string, unknown> | undefined,
      headers:
        options.method && options.method !== 'GET' ? { 'content-type': 'application/json' } : undefined,
      retry: 0,
    });
  } catch (error) {
    const e = error as { statusCode?: number; data?: { message?: string } };
    if (e.statusCode === 401 && !path.endsWith('/sign-in'))
      await navigateTo(`/sign-in?to=${encodeURIComponent(useRoute().fullPath)}`);
    throw new Error(
      e.data?.message ??
        (e.statusCode
          ? `The server answered ${e.statusCode}.`
          : 'The server cannot be reached. Is it still running?'),
    );
  }
}
