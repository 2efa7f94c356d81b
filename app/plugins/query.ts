/** What screens know of the server, kept once for all of them and asked for again when it changes. */
import { MutationCache, QueryClient, VueQueryPlugin } from '@tanstack/vue-query';

export default defineNuxtPlugin((nuxt) => {
  const queryClient = new QueryClient({
    defaultOptions: {
      // the server says what has changed; what is older than this is asked for again when it is shown anew
      queries: { staleTime: 60_000, gcTime: 5 * 60_000, retry: false, refetchOnWindowFocus: false },
    },
    mutationCache: new MutationCache({
      onError(error, _input, _context, { meta }) {
        if (!meta?.inPlace) useNotes().say(error.message, true);
      },
    }),
  });
  nuxt.vueApp.use(VueQueryPlugin, { queryClient });
  return { provide: { queryClient } };
});
