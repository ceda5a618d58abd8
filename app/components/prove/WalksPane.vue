<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { allProblems, fill } from '#core/fill/fill'
import { keptAnswer } from '#core/fill/keep'
import { codeFromLabel, freeCode } from '#core/form/codes'
import type { Walk } from '#core/form/definition'
import { runWalk } from '#core/prove/walks'
import { turnsTaken } from '#core/parties/turns'

/** Saved answers with the outcome expected; each is walked again after every edit. */
const draft = useDraft()
const rehearsal = useRehearsal()
const walks = computed(() => draft.form?.walks ?? [])
const outcomes = computed(() =>
  rehearsal.plan
    ? walks.value.map(w =>
        rehearsal.plan ? runWalk(rehearsal.plan, w, rehearsal.today) : { walk: w, misses: [] },
      )
    : [],
)
const failing = computed(() => outcomes.value.filter(o => o.misses.length > 0).length)
const put = (next: readonly Walk[]) =>
  draft.edit([{ do: 'change', what: 'form', set: { walks: next.length > 0 ? next : null } }], null)
const title = ref('')
const answered = computed(() => Object.values(rehearsal.answers).filter(a => a !== null).length)

/** What comes of the practice answers now becomes what is expected from then on. */
function outcomeNow(answers: Walk['answers']): Walk['expect'] {
  const plan = rehearsal.plan
  if (!plan) return {}
  const filled = fill(plan, answers, rehearsal.today)
  const questions = plan.questions.filter(q => q.place.entryOf === null)
  const values = Object.fromEntries(
    questions.flatMap(q =>
      q.value !== null && filled.inPlay[q.place.order] ? [[q.place.code, keptAnswer(filled, q.slot)]] : [],
    ),
  )
  return {
    inPlay: questions.filter(q => filled.inPlay[q.place.order]).map(q => q.place.code),
    notInPlay: questions.filter(q => !filled.inPlay[q.place.order]).map(q => q.place.code),
    ...(Object.keys(values).length > 0 ? { values } : {}),
    finishes: allProblems(filled).length === 0,
    ...(plan.form.turns ? { turns: turnsTaken(filled) } : {}),
  }
}
function add() {
  const name = title.value.trim()
  if (!name) return
  const answers = { ...rehearsal.answers }
  put([
    ...walks.value,
    {
      code: freeCode(codeFromLabel(name).slice(0, 40), new Set(walks.value.map(w => w.code))),
      title: name,
      answers,
      expect: outcomeNow(answers),
    },
  ])
  title.value = ''
}
const accept = (i: number) =>
  put(walks.value.map((w, j) => (j === i ? { ...w, expect: outcomeNow(w.answers) } : w)))
async function open(walk: Walk) {
  rehearsal.open(walk.answers, null)
  await navigateTo(`/forms/${draft.id}/write`)
}
function expected({ expect }: Walk): string {
  const parts: string[] = []
  if (expect.inPlay) parts.push(`${expect.inPlay.length} in play`)
  if (expect.notInPlay) parts.push(`${expect.notInPlay.length} not`)
  if (expect.values) parts.push(counted(Object.keys(expect.values).length, 'value'))
  if (expect.finishes !== undefined) parts.push(expect.finishes ? 'finishes' : 'does not finish')
  if (expect.turns) parts.push(`turns ${expect.turns.join(' → ')}`)
  return parts.join(' · ')
}
const heading = computed(() => {
  if (walks.value.length === 0) return 'Walks'
  if (failing.value === 0) return 'Every walk ends as expected'
  return `${failing.value} of ${walks.value.length} walks end otherwise`
})
</script>

<template>
  <section
    class="pane"
    aria-label="Walks"
  >
    <h2>{{ heading }}</h2>
    <p class="quiet">
      A walk is a set of answers with the outcome expected. It is walked again after every edit, so that what
      was right stays right.
    </p>
    <div
      v-for="(o, i) in outcomes"
      :key="o.walk.code"
      class="walk sheet"
    >
      <div class="row-flex">
        <span :class="o.misses.length > 0 ? 'fault' : 'proven'">{{ o.misses.length > 0 ? '✕' : '✓' }}</span>
        <strong>{{ o.walk.title }}</strong><span class="small quiet">{{ expected(o.walk) }}</span
        ><span class="spread" />
        <v-btn
          variant="text"
          @click="open(o.walk)"
        >
          Rehearse
        </v-btn>
        <v-btn
          v-if="o.misses.length > 0"
          variant="text"
          @click="accept(i)"
        >
          Expect this from now on
        </v-btn>
        <IconButton
          :icon="mdiClose"
          name="Remove"
          @click="put(walks.toSpliced(i, 1))"
        />
      </div>
      <ul
        v-if="o.misses.length > 0"
        class="small"
      >
        <li
          v-for="m in o.misses"
          :key="m"
        >
          {{ m }}
        </li>
      </ul>
    </div>
    <form
      class="row-flex"
      @submit.prevent="add"
    >
      <v-text-field
        v-model="title"
        class="wide"
        placeholder="Short steel hull"
        aria-label="Name of a new walk"
        maxlength="200"
      /><v-btn
        type="submit"
        :disabled="!title.trim()"
      >
        Keep the rehearsal’s {{ answered }} {{ answered === 1 ? 'answer' : 'answers' }} as a walk
      </v-btn>
    </form>
  </section>
</template>

<style scoped>
.pane {
  padding: 20px 24px;
  display: grid;
  gap: 14px;
  max-width: 900px;
  align-content: start;
}
.walk {
  padding: 10px 16px;
  display: grid;
  gap: 6px;
}
.wide {
  flex: 1;
}
li {
  margin-left: 26px;
}
</style>
