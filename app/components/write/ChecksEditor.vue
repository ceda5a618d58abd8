<script setup lang="ts">
import type { AnswerCheck } from '#core/form/fields'
import type { Place } from '#core/form/walk'

/** What has to hold of an answer, and what is said when it does not. A check comes into the draft with its rule. */
const props = defineProps<{ checks: readonly AnswerCheck[]; place: Place }>()
const emit = defineEmits<{ change: [checks: AnswerCheck[], merge: string | null] }>()
const draft = useDraft()
const { checks: begunChecks } = useBegunRules()
const key = computed(() => `${draft.id} ${props.place.address}`)
/** The message of the check that is being begun; undefined: none is. */
const begun = computed(() => begunChecks.get(key.value))
/** Those that are there, and the one that is begun. */
const all = computed((): readonly AnswerCheck[] =>
  begun.value === undefined ? props.checks : [...props.checks, { rule: '', message: begun.value }],
)
const put = (i: number, next: AnswerCheck | null, merge: string | null = null) =>
  emit('change', next === null ? props.checks.toSpliced(i, 1) : props.checks.toSpliced(i, 1, next), merge)
const isBegun = (i: number) => i === props.checks.length

function setRule(i: number, check: AnswerCheck, rule: string | null) {
  if (isBegun(i)) begunChecks.delete(key.value)
  if (rule !== null) put(i, { ...check, rule }, `check${i}`)
  else if (!isBegun(i)) put(i, null)
}
function setMessage(i: number, check: AnswerCheck, message: string) {
  if (isBegun(i)) begunChecks.set(key.value, message)
  else put(i, { ...check, message }, `message${i}`)
}
</script>

<template>
  <div class="checks">
    <div
      v-for="(c, i) in all"
      :key="i"
      class="check"
    >
      <RuleField
        words="Valid when"
        :text="c.rule === '' ? undefined : c.rule"
        :place="place"
        :part="String(i)"
        :about="place.code"
        :begins="isBegun(i)"
        @change="setRule(i, c, $event)"
      />
      <QuotableField
        :model-value="c.message"
        :place="place"
        :aria-label="`Message of check ${i + 1}`"
        placeholder="What to say when it is not"
        @write="setMessage(i, c, $event)"
      />
    </div>
    <v-btn
      v-if="begun === undefined"
      variant="text"
      @click="begunChecks.set(key, '')"
    >
      + valid when …
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
