<script setup lang="ts">
import { CLOSED_STATES } from '#core/facts/fix';
import { pointsText } from '#core/text/points';
import { placesText } from '#core/text/scope-words';
import type { FixRow } from '~/types';

/** One fix in the list. */
const props = defineProps<{
  fix: FixRow;
  sort: 'worst' | 'site' | 'person' | 'due';
  at: boolean;
  chosen: boolean;
  /** There is room for what matters most only. */
  narrow: boolean;
}>();
const emit = defineEmits<{ choose: [on: boolean]; click: [] }>();
const today = clockToday();
const isLate = computed(
  () => props.fix.dueDate && props.fix.dueDate < today && !CLOSED_STATES.has(props.fix.state),
);
</script>

<template>
  <tr :id="`fix-${fix.id}`" :class="{ at }" :aria-selected="at" @click="emit('click')">
    <td @click.stop>
      <v-checkbox-btn
        :model-value="chosen"
        density="compact"
        :aria-label="`Choose ${fix.title}, ${fix.site}`"
        @update:model-value="emit('choose', Boolean($event))"
      />
    </td>
    <td class="what">
      <button type="button" class="title" @click.stop="emit('click')">{{ fix.title }}</button>
      <span :class="fix.severity === 'blocker' ? 'fray' : 'faint'">{{ ' ' }}{{ fix.severity }}</span>
      <div class="faint found">{{ fix.found }}</div>
      <div v-if="narrow" class="faint">
        {{ sort === 'site' ? '' : `${fix.site}, ` }}{{ fix.environment.toLowerCase() }}, {{ fix.state }},
        {{ fix.owner ?? 'nobody' }}
      </div>
    </td>
    <td v-if="sort !== 'site' && !narrow">
      {{ fix.site }}<span class="faint">, {{ fix.environment.toLowerCase() }}</span>
    </td>
    <td v-if="!narrow" class="num faint touches">
      {{ fix.failing > 1 ? placesText(fix.scope, 0, fix.failing) : '' }}
    </td>
    <td class="num right" :class="{ fray: fix.points }">{{ fix.points ? pointsText(fix.points) : '' }}</td>
    <td v-if="!narrow">
      {{ fix.state
      }}<span v-if="fix.returns" class="fray" title="times it came back"> ↺{{ fix.returns }}</span>
    </td>
    <td v-if="sort !== 'person' && !narrow" :class="{ faint: !fix.owner }">{{ fix.owner ?? 'nobody' }}</td>
    <td v-if="!narrow" class="num" :class="{ fray: isLate }">
      {{ fix.dueDate ? dayText(fix.dueDate) : '' }}
    </td>
  </tr>
</template>

<style scoped>
tr {
  cursor: pointer;
}
tr.at {
  background: rgb(var(--v-theme-primary), 0.12);
}
.title {
  font-weight: 600;
  text-align: left;
}
.found {
  font-size: 13px;
  line-height: 1.3;
  overflow: hidden;
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow-wrap: anywhere;
}
.what {
  padding-block: 4px !important;
}
.touches {
  white-space: nowrap;
}
.right {
  text-align: right;
}
</style>
