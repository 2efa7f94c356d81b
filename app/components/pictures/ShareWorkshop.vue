<script setup lang="ts">
import { refDebounced } from '@vueuse/core';
import { cropTo, enlargement, SAFE_MARGIN, SHARE_SIZE } from '#core/pictures/crop';
import { SHARE_FORMATS } from '#core/pictures/kit';
import { LEAST_LETTER, SMALL_SHARE } from '#core/pictures/measures';
import { MOST_ZOOM, QUALITIES, type ShareSettings } from '#core/pictures/settings';
import { bytesInWords } from '#core/text/bytes';
import type { Answer } from '~/composables/api';

/** The share picture: what is kept of a picture, how heavy it becomes, and how it will be shown. */
const props = defineProps<{
  siteId: number;
  environmentId: number;
  picture: Answer<'/api/sites/:id/pictures'>['share'];
  /** The most bytes, and who says so. */
  limit: Answer<'/api/sites/:id/pictures'>['limit'];
}>();
const settings = defineModel<ShareSettings>({ required: true });
/** Whoever turns a wheel has not ended turning it. */
const settled = refDebounced(
  computed(() => ({ ...settings.value })),
  250,
);
const version = computed(() => props.picture?.version ?? 0);
/** What the picture is made with; what it is said to show changes nothing of it. */
const kept = computed(() => {
  const { x, y, zoom, format, ground } = settled.value;
  return { x, y, zoom, format, ground, version: version.value };
});
const { data: look, fault } = useApiQuery('/api/sites/:id/pictures/share', {
  key: () => ['site', props.siteId, 'share-picture'],
  params: () => ({ id: props.siteId }),
  query: () => kept.value,
  when: () => Boolean(props.picture),
});
const address = computed(() =>
  pictureAddress('/api/sites/:id/pictures/share-file', props.siteId, {
    ...kept.value,
    quality: settled.value.quality,
  }),
);

const crop = computed(() => props.picture && cropTo(props.picture, SHARE_SIZE, settings.value));
const box = computed(() => {
  const { picture } = props;
  if (!crop.value || !picture) return {};
  const share = (n: number, of: number): string => `${(100 * n) / of}%`;
  return {
    left: share(crop.value.left, picture.width),
    top: share(crop.value.top, picture.height),
    width: share(crop.value.width, picture.width),
    height: share(crop.value.height, picture.height),
  };
});
const enlarged = computed(() => (crop.value ? enlargement(crop.value, SHARE_SIZE) : 1));
const STEP = 0.02;
const between = (n: number): number => Math.min(1, Math.max(0, Math.round(n * 1000) / 1000));
function point(event: PointerEvent): void {
  if (event.buttons === 0 && event.type === 'pointermove') return;
  const area = (event.currentTarget as HTMLElement).getBoundingClientRect();
  settings.value.x = between((event.clientX - area.left) / area.width);
  settings.value.y = between((event.clientY - area.top) / area.height);
}
const MOVES: Record<string, [number, number]> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
};
function move(event: KeyboardEvent): void {
  const by = MOVES[event.key];
  if (!by) return;
  event.preventDefault();
  event.stopPropagation();
  settings.value.x = between(settings.value.x + by[0]);
  settings.value.y = between(settings.value.y + by[1]);
}

const bytes = computed(() => {
  const { sizes = [] } = look.value ?? {};
  const wanted = settings.value.format === 'png' ? 100 : settings.value.quality;
  return sizes.find((s) => s.quality === wanted)?.bytes;
});
const isHeavy = computed(() => bytes.value !== undefined && bytes.value > props.limit.bytes);
const at = computed({
  get: () => Math.max(0, QUALITIES.indexOf(settings.value.quality)),
  set: (i: number) => (settings.value.quality = QUALITIES[i]!),
});
const FORMATS = SHARE_FORMATS.map((key) => ({ key, label: key.toUpperCase() }));
/** How high the least letter is in the picture itself. */
const leastLetter = Math.ceil((LEAST_LETTER * SHARE_SIZE.width) / SMALL_SHARE);
/** What a square keeps of it, from the middle. */
const squareWidth = `${(100 * SHARE_SIZE.height) / SHARE_SIZE.width}%`;
</script>

<template>
  <section class="sheet workshop" aria-labelledby="share-heading">
    <h2 id="share-heading">
      Share picture <span class="faint num">{{ SHARE_SIZE.width }} × {{ SHARE_SIZE.height }} px</span>
    </h2>
    <PictureGive :site-id="siteId" :environment-id="environmentId" use="share" :picture="picture" />
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <div v-if="picture" class="two-sides">
      <div>
        <div
          class="frame"
          tabindex="0"
          role="group"
          aria-label="What is kept of the picture: arrow keys move the point that matters"
          @pointerdown="point"
          @pointermove="point"
          @keydown="move"
        >
          <img
            :src="
              pictureAddress('/api/sites/:id/pictures/preview', siteId, {
                use: 'share',
                version: picture.version,
              })
            "
            alt="The whole picture"
            draggable="false"
          />
          <span class="crop" :style="box"
            ><span class="safe" :style="{ inset: `${100 * SAFE_MARGIN}%` }" /><span
              class="square"
              :style="{ width: squareWidth }"
          /></span>
          <span class="focus" :style="{ left: `${100 * settings.x}%`, top: `${100 * settings.y}%` }" />
        </div>
        <p class="faint small">
          Click, or use the arrow keys, to say what matters. Dashed: the safe margin. Dotted: what a square
          keeps.
        </p>
        <v-slider
          v-model="settings.zoom"
          label="Zoom"
          name="Zoom"
          :min="1"
          :max="MOST_ZOOM"
          :step="0.05"
          hide-details
          color="primary"
        />
        <p v-if="enlarged > 1" class="fray small" role="status">
          Only {{ crop!.width }} px of {{ SHARE_SIZE.width }} are there: it is enlarged
          {{ enlarged.toFixed(1) }} times and will look soft. Take a larger picture, or keep more of it.
        </p>
        <div class="line">
          <FilterButtons v-model="settings.format" :options="FORMATS" label="Format" />
          <v-slider
            v-if="settings.format === 'jpeg'"
            v-model="at"
            label="Quality"
            name="Quality"
            :min="0"
            :max="QUALITIES.length - 1"
            :step="1"
            hide-details
            color="primary"
          />
          <span class="num" role="status" :class="{ fray: isHeavy }"
            ><template v-if="settings.format === 'jpeg'">{{ settings.quality }}: </template
            ><b>{{ bytes === undefined ? '…' : bytesInWords(bytes) }}</b> of {{ bytesInWords(limit.bytes)
            }}{{ limit.of === 'host' ? ' at the host' : '' }}</span
          >
        </div>
        <label v-if="picture.clear" class="line small"
          >Background where it is transparent
          <input v-model="settings.ground" type="color" />
        </label>
        <v-text-field
          v-model="settings.alt"
          label="What it shows, in a sentence (og:image:alt)"
          maxlength="420"
          hide-details
        />
      </div>
      <div class="outcome">
        <figure>
          <figcaption>wide</figcaption>
          <img :src="address" alt="The share picture, wide" class="wide" />
        </figure>
        <div class="pair">
          <figure>
            <figcaption>square</figcaption>
            <img :src="address" alt="The share picture, square" class="cut-square" />
          </figure>
          <figure>
            <figcaption>{{ SMALL_SHARE }} px wide, real size</figcaption>
            <img
              :src="address"
              :alt="`The share picture, ${SMALL_SHARE} px wide`"
              :width="SMALL_SHARE"
              class="small-one"
            />
            <p class="faint small">
              <span class="letter" :style="{ height: `${LEAST_LETTER}px` }" /> Letters lower than this ({{
                leastLetter
              }}
              px of {{ SHARE_SIZE.height }}) cannot be read at this size.
            </p>
          </figure>
        </div>
      </div>
    </div>
  </section>
</template>

<style scoped>
.two-sides {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 20px;
  align-items: start;
}
.two-sides > div {
  display: grid;
  gap: 10px;
}
.frame {
  position: relative;
  width: fit-content;
  max-width: 100%;
  overflow: hidden;
  cursor: crosshair;
  /* a finger still scrolls past it */
  touch-action: pan-y;
}
.frame img {
  display: block;
  max-width: 100%;
  max-height: 270px;
}
.crop {
  position: absolute;
  outline: 2px solid #fff;
  box-shadow: 0 0 0 2000px rgb(20 24 31 / 0.62);
  pointer-events: none;
}
.safe {
  position: absolute;
  border: 1px dashed #fff;
  mix-blend-mode: difference;
}
.square {
  position: absolute;
  inset-block: 0;
  left: 50%;
  transform: translateX(-50%);
  border-inline: 2px dotted #fff;
  mix-blend-mode: difference;
}
.focus {
  position: absolute;
  width: 14px;
  height: 14px;
  margin: -7px 0 0 -7px;
  border-radius: 50%;
  border: 2px solid #fff;
  box-shadow: 0 0 0 1px #14181f;
  pointer-events: none;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
}
.line .v-slider {
  min-width: 200px;
}
p {
  margin: 0;
}
.small {
  font-size: 12.5px;
}
figure {
  margin: 0;
}
figcaption {
  font-size: 12px;
  color: rgb(var(--v-theme-faint));
}
.outcome img {
  display: block;
  border: 1px solid rgb(var(--v-theme-rule));
}
.wide {
  width: 100%;
  max-width: 420px;
  aspect-ratio: 1200 / 630;
}
.pair {
  display: flex;
  flex-wrap: wrap;
  gap: 16px;
}
.cut-square {
  width: 158px;
  height: 158px;
  object-fit: cover;
}
.small-one {
  aspect-ratio: 1200 / 630;
  margin-bottom: 4px;
}
.letter {
  display: inline-block;
  width: 3px;
  background: rgb(var(--v-theme-primary));
}
@media (max-width: 900px) {
  .two-sides {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
