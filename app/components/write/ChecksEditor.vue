<script setup lang="ts">
import type { AnswerCheck } from '#core/form/fields'
import type { Place } from '#core/form/walk'

const props = defineProps<{ checks: readonly AnswerCheck[]; place: Place }>()
const emit = defineEmits<{ change: [checks: AnswerCheck[], merge: string | null] }>()
const put = (i: number, next: AnswerCheck | null, merge: string | null = null) =>
  emit('change', next === null ? props.checks.toSpliced(i, 1) : props.checks.toSpliced(i, 1, next), merge)
</script>

<template>
  <div class="checks">
    <div
      v-for="(c, i) in checks"
      :key="i"
      class="check"
    >
      <RuleField
        words="Valid when"
        :text="c.rule === '' ? undefined : c.rule"
        :place="place"
        @change="put(i, $event === null ? null : { ...c, rule: $event }, `check${i}`)"
      />
      <v-text-field
        :model-value="c.message"
        :aria-label="`Message of check ${i + 1}`"
        placeholder="What to say when it is not; {{ code }} quotes an answer"
        @input="put(i, { ...c, message: inputText($event) }, `message${i}`)"
      />
    </div>
    <v-btn
      variant="text"
      @click="emit('change', [...checks, { rule: '', message: '' }], null)"
    >
      + check
    </v-btn>
  </div>
</template>

<style scoped>
.checks,
.check {
  display: grid;
  gap: 6px;
}
.check {
  border-left: 1px solid var(--line);
  padding-left: 10px;
}
</style>
