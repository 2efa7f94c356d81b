/** Whether a page and all its pictures are there, for whoever prints it. */
export function usePicturesReady(data: Ref<unknown>): Ref<boolean> {
  const isReady = ref(false);
  watch(
    data,
    async (read) => {
      if (!read) return;
      await nextTick();
      await document.fonts.ready;
      await Promise.all(
        [...document.images].map((image) => {
          image.loading = 'eager';
          return image.decode().catch(() => {});
        }),
      );
      isReady.value = true;
    },
    { immediate: true, flush: 'post' },
  );
  return isReady;
}
