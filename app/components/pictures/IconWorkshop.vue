<script setup lang="ts">
import { refDebounced } from '@vueuse/core';
import type { HostProfile } from '#core/facts/host-profile';
import { DENSE, HARDLY_OUTSIDE, LEAST_CONTRAST, SAFE_RADIUS, SOFT_BELOW } from '#core/pictures/measures';
import { MOST_PADDING, type IconSettings } from '#core/pictures/settings';
import type { Answer } from '~/composables/api';

/** Icons in every size that is asked for, with what is measured in them. */
const props = defineProps<{
  siteId: number;
  environmentId: number;
  picture: Answer<'/api/sites/:id/pictures'>['icon'];
  /** The host's own sizes. */
  asked: NonNullable<HostProfile['icons']>;
}>();
const settings = defineModel<IconSettings>({ required: true });
const settled = refDebounced(
  computed(() => ({ ...settings.value })),
  250,
);
const { data: look, fault } = useApiQuery('/api/sites/:id/pictures/icons', {
  key: () => ['site', props.siteId, 'icons'],
  params: () => ({ id: props.siteId }),
  query: () => ({
    ...settled.value,
    trim: String(settled.value.trim),
    environment: props.environmentId,
    version: props.picture?.version ?? 0,
  }),
  when: () => Boolean(props.picture),
});
const hasGround = computed({
  get: () => settings.value.ground !== '',
  set: (on: boolean) => (settings.value.ground = on ? '#ffffff' : ''),
});
const rows = computed(() => {
  const icons = look.value?.icons ?? [];
  return { small: icons.filter((i) => i.size <= DENSE), large: icons.filter((i) => i.size > DENSE) };
});
const shown = (png: string): string => `data:image/png;base64,${png}`;
const percent = (share: number): string => `${Math.round(100 * share)} %`;
const hasIcons = computed(() => Boolean(look.value?.inPlace.icons.length));
const isEnough = computed(() => look.value?.inPlace.against === 'own');
const outside = computed(() => {
  const share = look.value?.maskable.outside ?? 0;
  if (share <= HARDLY_OUTSIDE) return 'nothing';
  return share < 0.01 ? 'less than 1 %' : percent(share);
});
const measured = computed(() =>
  (look.value?.inPlace.icons ?? []).filter((i) => i.size < DENSE && i.sharpness !== null),
);
const sizeOf = (icon: { size: number; vector: boolean }): string => (icon.vector ? 'SVG' : `${icon.size} px`);
const isSoft = (share: number | null): boolean => share !== null && share < SOFT_BELOW;
</script>

<template>
  <section class="sheet workshop" aria-labelledby="icon-heading">
    <h2 id="icon-heading">Icons</h2>
    <PictureGive :site-id="siteId" :environment-id="environmentId" use="icon" :picture="picture" />
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <template v-if="picture">
      <div class="line">
        <v-slider
          v-model="settings.padding"
          label="Padding"
          name="Padding"
          :min="0"
          :max="MOST_PADDING"
          :step="0.01"
          hide-details
          color="primary"
        >
          <template #append
            ><span class="num">{{ percent(settings.padding) }}</span></template
          >
        </v-slider>
        <v-checkbox
          v-model="settings.trim"
          label="Trim the picture’s empty edge"
          hide-details
          density="compact"
        />
        <v-checkbox v-model="hasGround" label="Background colour" hide-details density="compact" />
        <input
          v-if="hasGround"
          v-model="settings.ground"
          type="color"
          aria-label="Background colour of the icon"
        />
      </div>
      <v-progress-linear
        v-if="!look && !fault"
        indeterminate
        color="primary"
        aria-label="Drawing the icons"
      />
      <template v-if="look">
        <IconTabs :icons="rows.small" :asked="asked" />
        <ul class="measures">
          <li>
            <OutcomeMark stitch="passed" wordless />
            <span v-if="look.sharpness === null">It has no edges to measure: one colour all over.</span>
            <span v-else
              >At 32 px on a dense screen it keeps <b>{{ percent(look.sharpness) }}</b> of the edges of the 64
              px icon{{ isSoft(look.sharpness) ? ': soft, so the ZIP has 64 px and more as well' : '' }}.
              <span class="faint"
                >Measured: the root mean square of the steps between neighbouring pixels, the 32 px icon
                enlarged to 64 against the one drawn in 64; soft below {{ percent(SOFT_BELOW) }}.</span
              ></span
            >
          </li>
          <li v-if="hasIcons">
            <OutcomeMark :stitch="isEnough ? 'passed' : 'failed'" wordless />
            <span
              >In place now: {{ look.inPlace.icons.map(sizeOf).join(', ') }},
              {{
                isEnough
                  ? 'enough for a dense screen'
                  : 'enlarged on a dense screen, which shows 32 px in 64'
              }}.
              <span v-for="i in measured" :key="i.url"
                >{{ i.size }} px keeps <b>{{ percent(i.sharpness!) }}</b>{{
                  isSoft(i.sharpness) ? ' (soft)' : ''
                }}.
              </span>
              <span class="faint">{{
                look.inPlace.against === 'own'
                  ? 'Against the edges of the largest there.'
                  : look.inPlace.against === 'new'
                    ? 'Against the edges of the new 64 px icon.'
                    : 'Another drawing: not compared.'
              }}</span></span
            >
          </li>
          <li v-for="p in look.inPlace.faults" :key="p.url">
            <OutcomeMark stitch="cantTell" wordless />
            <span
              >In place now, <span class="mono">{{ pathOf(p.url) }}</span>: {{ p.fault }}</span
            >
          </li>
          <li v-if="look.colour && look.contrast">
            <OutcomeMark
              :stitch="
                Math.min(look.contrast.light, look.contrast.dark) < LEAST_CONTRAST ? 'failed' : 'passed'
              "
              wordless
            />
            <span
              >Its main colour <span class="swatch" :style="{ background: look.colour }" />
              <span class="mono">{{ look.colour }}</span> has a contrast of
              <b>{{ look.contrast.light.toFixed(1) }} : 1</b> on light tabs and
              <b>{{ look.contrast.dark.toFixed(1) }} : 1</b> on dark ones;
              <span class="faint">{{ LEAST_CONTRAST }} : 1 is asked (WCAG 2.2 SC 1.4.11).</span></span
            >
          </li>
          <li v-if="!look.square">
            <OutcomeMark stitch="failed" wordless />
            <span>The picture is not square: it is padded with transparency.</span>
          </li>
        </ul>
        <div class="phones">
          <figure>
            <img :src="shown(look.touch.png)" width="96" height="96" class="touch" alt="Touch icon" />
            <figcaption class="num">touch icon, {{ look.touch.size }} px</figcaption>
          </figure>
          <figure>
            <span class="mask"
              ><img :src="shown(look.maskable.png)" width="96" height="96" alt="Maskable icon, square" /><span
                class="zone"
                :style="{ inset: `${50 - 100 * SAFE_RADIUS}%` }"
            /></span>
            <figcaption>maskable, with its safe zone</figcaption>
          </figure>
          <figure>
            <img
              :src="shown(look.maskable.png)"
              width="96"
              height="96"
              class="round"
              alt="Maskable icon, cut round"
            />
            <figcaption>as a round mask cuts it</figcaption>
          </figure>
          <p class="small">
            Maskable: padding of {{ percent(look.maskable.padding) }}, <b>{{ outside }}</b> of the drawing
            lies outside the safe zone.
            <span class="faint">A circle of two fifths of its side (W3C Web App Manifest).</span>
          </p>
        </div>
        <details>
          <summary>
            Larger sizes at their real size: {{ rows.large.map((i) => i.size).join(', ') }} px
          </summary>
          <IconTabs :icons="rows.large" :asked="asked" />
        </details>
      </template>
    </template>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 20px;
}
.line .v-slider {
  flex: 0 1 320px;
  min-width: 220px;
}
p {
  margin: 0;
}
figure {
  margin: 0;
  max-width: 100%;
}
figure img {
  display: block;
  max-width: 100%;
  height: auto;
}
figcaption {
  font-size: 12px;
}
.measures {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.measures li {
  display: grid;
  grid-template-columns: 20px minmax(0, 1fr);
  align-items: baseline;
}
.swatch {
  display: inline-block;
  width: 12px;
  height: 12px;
  border: 1px solid rgb(var(--v-theme-rule));
  vertical-align: -1px;
}
.phones {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 28px;
  align-items: end;
}
.touch {
  border-radius: 20px;
  border: 1px solid rgb(var(--v-theme-rule));
}
.mask {
  position: relative;
  display: block;
  width: 96px;
  border: 1px solid rgb(var(--v-theme-rule));
}
.mask .zone {
  position: absolute;
  border: 1px dashed #fff;
  border-radius: 50%;
  mix-blend-mode: difference;
}
.round {
  border-radius: 50%;
}
.small {
  max-width: 46ch;
  font-size: 13px;
}
summary {
  cursor: pointer;
  margin-bottom: 8px;
}
</style>
