<script setup lang="ts">
/** One entry of a menu. With `chosen` it is one of several of which one holds. */
const { chosen = undefined } = defineProps<{ chosen?: boolean }>();
</script>

<template>
  <v-list-item
    :role="chosen === undefined ? 'menuitem' : 'menuitemradio'"
    :aria-checked="chosen"
    :active="chosen"
    ><template v-for="(_, name) in $slots" #[name]="given"
      ><slot :name="name" v-bind="given ?? {}" /></template
  ></v-list-item>
</template>
