<script setup lang="ts">
import { quantity } from '#core/text/quantity';

/** Joins what somebody else saved meanwhile with what is being saved. */
const joining = useJoining();
const MOST = 8;
const others = computed(() => joining.taken.length - MOST);
</script>

<template>
  <v-dialog
    :model-value="joining.asked !== null"
    max-width="680"
    scrollable
    aria-label="Somebody saved meanwhile"
    @update:model-value="joining.answer(false)"
  >
    <v-card v-if="joining.asked" class="join">
      <h2>
        {{ joining.asked.overtaken.savedBy ?? 'Somebody' }} saved version
        {{ joining.asked.overtaken.version }} meanwhile
      </h2>
      <p v-if="joining.taken.length">
        Taken over from there: {{ joining.taken.slice(0, MOST).map(joining.asked.label).join(', ')
        }}<template v-if="others > 0"> and {{ quantity(others, 'more field') }}</template
        >.
      </p>
      <p>
        {{
          joining.clashes.length
            ? `You both changed ${quantity(joining.clashes.length, 'field')}. Say which counts:`
            : 'Nothing that you changed was changed there, so both fit together.'
        }}
      </p>
      <div v-if="joining.clashes.length" class="clashes">
        <v-radio-group
          v-for="c in joining.clashes"
          :key="c.path"
          :model-value="joining.theirs.has(c.path) ? 'theirs' : 'mine'"
          :label="joining.asked.label(c.path)"
          density="compact"
          hide-details
          @update:model-value="joining.choose(c.path, $event === 'theirs')"
        >
          <v-radio value="mine" :label="`Yours: ${c.mine || 'left blank'}`" />
          <v-radio value="theirs" :label="`Theirs: ${c.theirs || 'left blank'}`" />
        </v-radio-group>
      </div>
      <div class="buttons">
        <v-btn color="primary" variant="flat" @click="joining.answer(true)">Save both together</v-btn
        ><v-btn variant="text" @click="joining.answer(false)">Go on editing</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.join {
  padding: 18px 20px;
  display: grid;
  gap: 12px;
}
.join p {
  margin: 0;
}
.clashes {
  display: grid;
  gap: 12px;
  overflow: auto;
  max-height: 50vh;
  overflow-wrap: anywhere;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
