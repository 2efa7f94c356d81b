<script setup lang="ts">
import { headingOf } from '#core/facts/heading';
import { MOST_FILE_BYTES } from '#core/entry/attachment';
import type { LedgerFinding } from '~/types';

/**
 * Vouching for a manual check: done, not done, not applicable; with a note and a file; for all it is
 * about or one thing of it.
 */
const props = defineProps<{
  environmentId: number;
  finding: LedgerFinding;
  place?: string;
  bare?: boolean;
}>();
const emit = defineEmits<{ done: [said: string]; cancel: [] }>();
const notes = useNotes();
const note = ref('');
const days = ref(props.finding.attestedForDays ? String(props.finding.attestedForDays) : '');
const untilStage = ref(false);
const file = ref<{ id: number; name: string } | null>(null);
const wrong = ref('');
const {
  run: keep,
  busy: keeping,
  fault: unkept,
} = useAction(
  async (chosen: File) => {
    if (chosen.size > MOST_FILE_BYTES)
      throw new Error(`${chosen.name} is larger than ${MOST_FILE_BYTES / 1024 / 1024} MB.`);
    file.value = await api('/api/environments/:id/files', {
      params: { id: props.environmentId },
      method: 'POST',
      file: chosen,
    });
  },
  { inPlace: true },
);
const {
  run: attest,
  busy: saying,
  fault: unsaid,
} = useAction(
  async (what: 'done' | 'not done' | 'not applicable') => {
    const good = Number(days.value);
    await api('/api/environments/:id/attest', {
      params: { id: props.environmentId },
      method: 'POST',
      body: {
        check: props.finding.check,
        done: what === 'done',
        ...(what === 'not applicable' ? { doesNotApply: true } : {}),
        ...(note.value.trim() ? { note: note.value.trim() } : {}),
        ...(props.place ? { place: props.place } : {}),
        ...(untilStage.value ? { untilStageChanges: true } : good ? { goodForDays: good } : {}),
        ...(file.value ? { attachmentId: file.value.id } : {}),
      },
    });
    notes.say(`${headingOf(props.finding)}: ${what}.`);
    emit('done', what);
  },
  { inPlace: true },
);
const busy = computed(() => keeping.value || saying.value);
const fault = computed(() => wrong.value || unkept.value || unsaid.value);
async function say(what: 'done' | 'not done' | 'not applicable'): Promise<void> {
  if (busy.value) return;
  wrong.value = '';
  if (what === 'not applicable' && !note.value.trim()) {
    wrong.value = 'Say in the note why it is not applicable.';
    return;
  }
  const good = Number(days.value);
  if (days.value.trim() && (!Number.isInteger(good) || good < 1 || good > 3650)) {
    wrong.value = 'Good for a number of days from 1 to 3650.';
    return;
  }
  await attest(what);
}
defineExpose({ say });
</script>

<template>
  <form class="form" @submit.prevent="say('done')" @keydown.esc.stop="emit('cancel')">
    <p v-if="place" class="mono where">{{ place }}</p>
    <v-textarea
      v-model="note"
      label="Note (what was looked at, and where the proof lies)"
      rows="2"
      auto-grow
      max-rows="8"
      :autofocus="!bare"
    />
    <div class="line">
      <v-text-field
        v-model="days"
        label="Good for days"
        inputmode="numeric"
        class="days"
        :disabled="untilStage"
      /><v-checkbox v-model="untilStage" label="until the stage changes" /><span class="spring" /><span
        v-if="file"
        class="faint cut"
        >{{ file.name }}</span
      ><FilePick :label="file ? 'Another file' : 'Add a picture or file'" :disabled="busy" @chosen="keep" />
    </div>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
    <div class="buttons">
      <v-btn type="submit" color="primary" variant="flat" :size="bare ? 'default' : 'small'" :loading="busy"
        >It is done<kbd v-if="bare">D</kbd></v-btn
      ><v-btn :size="bare ? 'default' : 'small'" :disabled="busy" @click="say('not done')"
        >It is not done<kbd v-if="bare">N</kbd></v-btn
      ><v-btn :size="bare ? 'default' : 'small'" :disabled="busy" @click="say('not applicable')"
        >Not applicable<kbd v-if="bare">X</kbd></v-btn
      ><v-btn v-if="!bare" size="small" variant="text" @click="emit('cancel')">Cancel</v-btn>
    </div>
  </form>
</template>

<style scoped>
.form {
  display: grid;
  gap: 8px;
}
.buttons,
.line {
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
  align-items: center;
}
.days {
  max-width: 130px;
}
.where {
  overflow-wrap: anywhere;
}
kbd {
  border: 0;
  padding: 0;
  margin-left: 6px;
  opacity: 0.7;
}
</style>
