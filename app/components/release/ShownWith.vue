<script setup lang="ts">
/** The answers that show something. */
defineProps<{ answers: readonly { label: string; text: string }[] }>()
</script>

<template>
  <p class="small quiet with">
    <template v-if="answers.length > 0">
      With
      <span
        v-for="(answer, at) in answers"
        :key="at"
        >{{ at > 0 ? ', ' : '' }}{{ answer.label }} <strong>{{ answer.text }}</strong></span
      >
    </template>
    <template v-else>With no answer at all</template>
  </p>
</template>

<style scoped>
.with {
  padding-left: 12px;
}
</style>
