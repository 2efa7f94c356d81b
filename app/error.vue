<script setup lang="ts">
import type { NuxtError } from '#app';

/** Shown in place of a screen that is not there, or that broke. */
const props = defineProps<{ error: NuxtError }>();
const isMissing = computed(() => props.error.statusCode === 404);
useHead({ title: computed(() => `${isMissing.value ? 'Not found' : 'Not available'} – Armband`) });
</script>

<template>
  <v-app>
    <v-main>
      <div class="page">
        <section class="sheet missing">
          <h1>{{ isMissing ? 'Not found' : 'Not available' }}</h1>
          <p>
            {{
              isMissing
                ? 'There is no such page. It was moved or removed, or the address was typed wrongly.'
                : 'Something went wrong on this screen. Open it again; if that does not help, tell whoever runs Armband.'
            }}
          </p>
          <v-btn color="primary" variant="flat" @click="clearError({ redirect: '/' })">To the roster</v-btn>
        </section>
      </div>
    </v-main>
  </v-app>
</template>

<style scoped>
.missing {
  max-width: 480px;
  margin: 15vh auto 0;
  padding: 24px;
  display: grid;
  gap: 12px;
  justify-items: start;
}
.missing p,
.missing h1 {
  margin: 0;
}
</style>
