<script setup lang="ts">
import { mdiCancel } from '@mdi/js';

/** Says of an empty field that it is blank on purpose; the reason is asked next. */
defineProps<{ field: string }>();
const emit = defineEmits<{ say: [] }>();
</script>

<template>
  <v-btn
    :icon="mdiCancel"
    variant="text"
    size="x-small"
    density="compact"
    :title="`None wanted: leave “${field}” blank on purpose`"
    :aria-label="`No ${field} wanted`"
    @click="emit('say')"
  />
</template>
