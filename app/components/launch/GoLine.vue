<script setup lang="ts">
import type { SheetData, SiteDetail } from '~/types';

/** Go or no-go in one line, with what stands against it; going anyway takes two people and a reason. */
const props = defineProps<{ sheet: SheetData; site: SiteDetail }>();
const session = useSession();
const reason = ref('');
const isAsking = ref(false);
const notes = useNotes();
const anyway = computed(() => props.sheet.launch.anyway);
const isMine = computed(() => anyway.value?.byId === session.me?.id);
/** Whether something is against it by now that was not when the first person asked. */
const hasNew = computed(() => {
  const before = anyway.value?.codes;
  return before !== undefined && props.sheet.go.codes.some((code) => !before.includes(code));
});
const {
  run: go,
  busy,
  fault,
} = useAction(
  async (agreesTo?: string) => {
    const { went } = await api('/api/launches/:id/go', {
      params: { id: props.sheet.launch.id },
      method: 'POST',
      body: {
        ...(agreesTo === undefined ? { reason: reason.value } : { agreesTo }),
        seen: props.sheet.go.codes,
      },
    });
    isAsking.value = false;
    notes.say(went ? 'Go.' : 'Noted. A second person has to agree.');
  },
  { inPlace: true },
);
</script>

<template>
  <section class="sheet go" aria-label="Go or no-go">
    <template v-if="sheet.launch.wentAt">
      <p class="verdict">Go, <TimeAt :iso="sheet.launch.wentAt" />, said by {{ sheet.launch.wentBy }}.</p>
      <p v-if="anyway" class="faint">
        Anyway: {{ anyway.reason }} Against it stood: {{ anyway.against.join(' ') }}
      </p>
    </template>
    <template v-else>
      <div class="line">
        <p class="verdict" :class="{ fray: !sheet.go.isGo }">
          {{ sheet.go.isGo ? 'Go: nothing stands against it.' : 'No-go.' }}
        </p>
        <span class="spring" />
        <v-btn v-if="sheet.go.isGo" color="primary" variant="flat" :loading="busy" @click="go()">Go</v-btn>
        <v-btn v-else-if="!anyway && !isAsking" size="small" @click="isAsking = true">Go anyway …</v-btn>
      </div>
      <ul v-if="!sheet.go.isGo">
        <li v-for="a in sheet.go.against" :key="a">{{ a }}</li>
      </ul>
      <div v-if="anyway && !sheet.go.isGo" class="anyway">
        <p>
          <b>{{ anyway.by }}</b> wants to go anyway, <TimeAt :iso="anyway.at" />: {{ anyway.reason }}
        </p>
        <p v-if="isMine" class="faint">A second person has to agree.</p>
        <template v-else>
          <p v-if="hasNew">What is against it has changed since. You agree to what the list shows now.</p>
          <v-btn size="small" :loading="busy" @click="go(anyway.at)">Agree, and go</v-btn>
        </template>
      </div>
      <form v-else-if="isAsking" class="line" @submit.prevent="go()">
        <v-text-field v-model="reason" label="Why all the same" hide-details autofocus class="reason" />
        <v-btn type="submit" size="small" :disabled="reason.trim().length < 3" :loading="busy"
          >Ask a second person</v-btn
        >
        <v-btn size="small" variant="text" @click="isAsking = false">Cancel</v-btn>
      </form>
    </template>
    <p v-if="fault" class="fray" role="alert">{{ fault }}</p>
  </section>
</template>

<style scoped>
.go {
  padding: 12px 16px;
  display: grid;
  gap: 8px;
}
p {
  margin: 0;
  overflow-wrap: anywhere;
}
.verdict {
  font-size: 18px;
  font-weight: 650;
}
ul {
  margin: 0;
  padding-left: 18px;
}
.line {
  display: flex;
  gap: 8px 14px;
  align-items: center;
  flex-wrap: wrap;
}
.reason {
  min-width: 240px;
}
.anyway {
  display: grid;
  gap: 6px;
  justify-items: start;
}
</style>
