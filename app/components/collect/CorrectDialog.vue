<script setup lang="ts">
import { describeFilled } from '#core/fill/describeResponse'
import { newProblems, NOT_CORRECTED, withChanges } from '#core/fill/correcting'
import { fill } from '#core/fill/fill'
import { planOf } from '#core/fill/plan'
import { sameAnswer, type Answer, type Answers } from '#core/form/answers'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'
import { PARTY_ACCESS } from '../answer/keys'

/** A response is corrected: its form is filled anew, what follows from that is shown before it counts, and why is kept. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const collect = useCollect()
const { refusal, busy, attempt } = useRefusable()
const { data: open, error } = await useAsyncData(
  `correctable-${props.id}`,
  () => callApi(API.loadCorrectable, { params: { id: props.id } }),
  { server: false, deep: false },
)
const changes = ref<Answers>({})
const reason = ref('')
const plan = computed(() => (open.value ? planOf(open.value.form) : null))
const answers = computed((): Answers => ({ ...open.value?.answers, ...changes.value }))
const filledWith = (given: Answers) =>
  plan.value && open.value ? fill(plan.value, withChanges(given, {}), open.value.begunOn) : null
const before = computed(() => filledWith(open.value?.answers ?? {}))
const after = computed(() => filledWith(answers.value))
/** What is not corrected is read. */
provide(
  PARTY_ACCESS,
  computed(() =>
    Object.fromEntries(
      (plan.value?.questions ?? []).map(({ place: { code, node } }) => [
        code,
        NOT_CORRECTED.has(node.type) ? ('reads' as const) : ('fills' as const),
      ]),
    ),
  ),
)
const sections = computed(() => after.value?.path ?? [])
function give(code: string, value: Answer) {
  const isAsBefore = sameAnswer(value ?? null, open.value?.answers[code] ?? null)
  const others = Object.entries(changes.value).filter(([changed]) => changed !== code)
  changes.value = Object.fromEntries(isAsBefore ? others : [...others, [code, value ?? null]])
}
/** What would be others: answers, and what is asked or not asked because of them. */
const consequences = computed(() => {
  if (!before.value || !after.value) return []
  const old = new Map(describeFilled(before.value).map(l => [l.path, l]))
  return describeFilled(after.value).flatMap(l => {
    const was = old.get(l.path)
    if (was?.text === l.text && was.state === l.state) return []
    return [{ path: l.path, label: l.label, was: sayLine(was), now: sayLine(l) }]
  })
})
function sayLine(line: { state: string; text: string } | undefined): string {
  if (!line) return '—'
  if (line.state === 'unasked') return 'not asked'
  return line.state === 'blank' ? 'left blank' : line.text
}
/** What would not fit that fitted before. */
const problems = computed(() => (before.value && after.value ? newProblems(before.value, after.value) : []))
const isReady = computed(
  () => Object.keys(changes.value).length > 0 && problems.value.length === 0 && reason.value.trim() !== '',
)
const save = () =>
  attempt(async () => {
    await callApi(API.amendResponse, {
      params: { id: props.id },
      body: { answers: changes.value, reason: reason.value, base: open.value?.base ?? '' },
    })
    await collect.changed()
    emit('close')
  })
</script>

<template>
  <PlainDialog
    title="Correct the response"
    :width="980"
    @close="emit('close')"
  >
    <RefusalAlert :refusal="error && refusalOf(error).sentence" />
    <div
      v-if="after"
      class="two"
    >
      <div class="sheet respondent fields">
        <AnswerSection
          v-for="section in sections"
          :key="section"
          :filled="after"
          :page="{ section, only: null }"
          :answers="answers"
          :tried="problems.length > 0"
          prefix="correct"
          @answer="give"
        />
      </div>
      <section aria-label="What follows">
        <h3>What follows</h3>
        <p
          v-if="consequences.length === 0"
          class="quiet"
        >
          Nothing is changed yet. Correct an answer at the left; the rules are decided again at once.
        </p>
        <p
          v-for="c in consequences"
          :key="c.path"
        >
          {{ c.label }}: <del>{{ c.was }}</del> → <strong>{{ c.now }}</strong>
        </p>
        <template v-if="problems.length > 0">
          <h3 class="fault">What would not fit</h3>
          <p
            v-for="p in problems"
            :key="`${p.path} ${p.sentence}`"
            class="fault"
          >
            {{ p.sentence }}
          </p>
        </template>
        <LabelledField
          v-model="reason"
          label="Why"
          hint="It stands in the history of the response, with what stood there before."
          required
        />
        <RefusalAlert :refusal="refusal" />
      </section>
    </div>
    <template #actions>
      <v-btn @click="emit('close')">Leave it as it is</v-btn
      ><v-btn
        variant="flat"
        color="primary"
        :disabled="busy || !isReady"
        @click="save"
        >Correct it</v-btn
      >
    </template>
  </PlainDialog>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 24px;
  min-height: 0;
}
.two > * {
  max-height: 62vh;
  overflow-y: auto;
}
.fields {
  padding: 16px 20px;
  display: grid;
  gap: 28px;
}
section {
  display: grid;
  gap: 8px;
  align-content: start;
  overflow-wrap: anywhere;
}
h3 {
  font-size: 15px;
}
</style>
