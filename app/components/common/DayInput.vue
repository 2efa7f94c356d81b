<script setup lang="ts">
/** A day, written and picked as the reader's locale has it; kept as YYYY-MM-DD, empty for none. */
const day = defineModel<string>({ required: true });
defineProps<{ label: string }>();
const two = (n: number): string => String(n).padStart(2, '0');
/** A day has no time zone: it is the reader's midnight here, whatever that is elsewhere. */
const date = computed<Date | null>({
  get() {
    const [year, month, ofMonth] = day.value.split('-').map(Number);
    return year ? new Date(year, month! - 1, ofMonth) : null;
  },
  set(chosen) {
    const next = chosen
      ? `${chosen.getFullYear()}-${two(chosen.getMonth() + 1)}-${two(chosen.getDate())}`
      : '';
    if (next !== day.value) day.value = next;
  },
});
// Vuetify says of a plain element that it is expanded, which only a button or the like can be
const QUIET = {
  activatorProps: {
    'aria-expanded': undefined,
    'aria-haspopup': undefined,
    'aria-controls': undefined,
    'aria-owns': undefined,
  },
};
</script>

<template>
  <v-date-input v-model="date" :label="label" :menu-props="QUIET" clearable />
</template>
