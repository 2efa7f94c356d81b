<script setup lang="ts">
import { insertNodeAt, removeNode, useSortable } from '@vueuse/integrations/useSortable';

/** Rows that are put into another order by dragging them at their grip, by mouse or touch. */
const props = defineProps<{ disabled: boolean }>();
const emit = defineEmits<{ moved: [from: number, to: number] }>();
const list = ref<HTMLElement | null>(null);
useSortable(list, [], {
  handle: '.grip',
  animation: 120,
  disabled: props.disabled,
  onUpdate({ item, from, oldIndex, newIndex }) {
    // the order is Vue's to draw
    removeNode(item);
    insertNodeAt(from, item, oldIndex!);
    emit('moved', oldIndex!, newIndex!);
  },
});
</script>

<template>
  <div ref="list"><slot /></div>
</template>
