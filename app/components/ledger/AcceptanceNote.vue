<script setup lang="ts">
import type { LedgerFinding } from '~/types';

/** Why a fault is left, and the second person's yes that a blocker needs. */
const props = defineProps<{ acceptance: NonNullable<LedgerFinding['acceptance']>; isBlocker: boolean }>();
const emit = defineEmits<{ agree: [] }>();
const session = useSession();
const needsSecond = computed(() => props.isBlocker && !props.acceptance.seconded);
</script>

<template>
  <section>
    <h3>Left on purpose</h3>
    <p>
      {{ acceptance.by }}: {{ acceptance.reason }}
      <span class="faint"
        >Until {{ acceptance.until
        }}<template v-if="acceptance.seconded">, agreed by {{ acceptance.seconded }}</template
        >.</span
      >
    </p>
    <p v-if="needsSecond">
      A blocker needs a second person’s agreement before it counts.
      <v-btn v-if="acceptance.byId !== session.me?.id" size="small" @click="emit('agree')">Agree</v-btn>
    </p>
  </section>
</template>
