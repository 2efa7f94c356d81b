<script setup lang="ts">
/** Asks what the question store asks. */
const question = useQuestion();
</script>

<template>
  <v-dialog
    :model-value="question.asked !== null"
    max-width="440"
    :aria-label="question.asked?.title"
    @update:model-value="question.answer(false)"
  >
    <v-card v-if="question.asked" class="ask">
      <h2>{{ question.asked.title }}</h2>
      <p v-if="question.asked.text">{{ question.asked.text }}</p>
      <div class="buttons">
        <v-btn color="primary" variant="flat" @click="question.answer(true)">{{
          question.asked.yes
        }}</v-btn><v-btn variant="text" autofocus @click="question.answer(false)">{{
          question.asked.no
        }}</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.ask {
  padding: 18px 20px;
  display: grid;
  gap: 12px;
}
.ask p {
  margin: 0;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
