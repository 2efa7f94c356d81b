<script setup lang="ts">
import type { RemarkRegion } from '~/types';

/** A picture on which a part can be marked: drawn with a pointer, or moved and sized with the arrow keys. */
const props = defineProps<{
  src: string;
  alt: string;
  /** What can be done, in the reader’s language; left out where the mark is only shown. */
  hint?: string;
}>();
const region = defineModel<RemarkRegion | null>({ required: true });
const frame = ref<HTMLElement | null>(null);
/** Where drawing began, in shares of the picture. */
let from: { x: number; y: number } | undefined;
const STEP = 0.04;
const LEAST = 0.02;
/** With what the keyboard begins: the middle of the upper half. */
const FIRST: RemarkRegion = { x: 0.3, y: 0.2, width: 0.4, height: 0.2 };

const clamp = (value: number, most = 1): number => Math.min(most, Math.max(0, value));
function placeOf(event: PointerEvent): { x: number; y: number } {
  const box = frame.value!.getBoundingClientRect();
  return {
    x: clamp((event.clientX - box.left) / box.width),
    y: clamp((event.clientY - box.top) / box.height),
  };
}
function begin(event: PointerEvent): void {
  if (!props.hint) return;
  frame.value!.setPointerCapture(event.pointerId);
  from = placeOf(event);
}
function draw(event: PointerEvent): void {
  if (!from) return;
  const to = placeOf(event);
  const [width, height] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)];
  if (width >= LEAST && height >= LEAST)
    region.value = { x: Math.min(from.x, to.x), y: Math.min(from.y, to.y), width, height };
}
function end(): void {
  from = undefined;
}

const MOVES: Record<string, [x: number, y: number]> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
};
function key(event: KeyboardEvent): void {
  const move = MOVES[event.key];
  if (!props.hint || !move) return;
  event.preventDefault();
  const now = region.value;
  if (!now) {
    region.value = { ...FIRST };
    return;
  }
  const [x, y] = move;
  region.value = event.shiftKey
    ? {
        ...now,
        width: Math.max(LEAST, clamp(now.width + x, 1 - now.x)),
        height: Math.max(LEAST, clamp(now.height + y, 1 - now.y)),
      }
    : { ...now, x: clamp(now.x + x, 1 - now.width), y: clamp(now.y + y, 1 - now.height) };
}
const percent = (share: number): string => `${100 * share}%`;
const style = computed(() => {
  const r = region.value;
  return r && { left: percent(r.x), top: percent(r.y), width: percent(r.width), height: percent(r.height) };
});
</script>

<template>
  <div
    ref="frame"
    class="frame"
    :class="{ draws: hint }"
    :tabindex="hint ? 0 : undefined"
    :role="hint ? 'application' : undefined"
    :aria-label="hint"
    @pointerdown="begin"
    @pointermove="draw"
    @pointerup="end"
    @pointercancel="end"
    @keydown="key"
  >
    <img :src="src" :alt="alt" draggable="false" />
    <div v-if="style" class="mark" :style="style" />
  </div>
</template>

<style scoped>
.frame {
  position: relative;
  display: inline-block;
  max-width: 100%;
  border: 1px solid rgb(var(--v-theme-rule));
  line-height: 0;
}
.draws {
  cursor: crosshair;
  touch-action: pinch-zoom;
}
img {
  max-width: 100%;
  height: auto;
  user-select: none;
}
.mark {
  position: absolute;
  border: 2px solid rgb(var(--v-theme-primary));
  background: rgb(var(--v-theme-primary) / 18%);
  pointer-events: none;
}
</style>
