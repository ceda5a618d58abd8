<script setup lang="ts">
import type { Answer, Answers } from '#core/form/answers'
import type { Filled } from '#core/fill/fill'

/** One page to be answered, with the ways back and on. */
const props = defineProps<{
  filled: Filled
  answers: Answers
  pagination: ReturnType<typeof usePagination>
}>()
const emit = defineEmits<{ answer: [code: string, value: Answer]; next: []; back: [] }>()
const form = useTemplateRef<HTMLElement>('form')
useChoiceKeys(form, () => props.pagination.page.value?.only != null)
</script>

<template>
  <form
    v-if="pagination.page.value"
    ref="form"
    novalidate
    @submit.prevent="emit('next')"
  >
    <AnswerSection
      :filled="filled"
      :page="pagination.page.value"
      :answers="answers"
      :tried="pagination.tried.value"
      prefix="q"
      level="h1"
      @answer="(code, value) => emit('answer', code, value)"
    />
    <div class="row-flex foot">
      <v-btn
        class="big"
        :class="{ gone: pagination.at.value === 0 }"
        :disabled="pagination.at.value === 0"
        @click="emit('back')"
      >
        Back
      </v-btn>
      <span class="spread" />
      <v-btn
        type="submit"
        variant="flat"
        color="primary"
        class="big"
        >{{ pagination.nextText.value }}</v-btn
      >
    </div>
  </form>
</template>

<style scoped>
.foot {
  margin-top: 36px;
}
.big {
  min-height: 46px;
  padding: 8px 20px;
}
.gone {
  visibility: hidden;
}
@media (max-width: 480px) {
  .gone,
  .foot .spread {
    display: none;
  }
  .foot .v-btn--variant-flat {
    flex: 1;
    justify-content: center;
  }
}
</style>
