<script setup lang="ts">
import type { Turn } from '#core/form/turns'
import { turnName, turnProblems } from '#core/parties/turns'

/** The end of a turn that is rehearsed: what keeps it from being handed on, the hand-off by the real rules, and giving back. */
const props = defineProps<{ turn: Turn }>()
const emit = defineEmits<{ back: []; take: [code: string] }>()
const draft = useDraft()
const rehearsal = useRehearsal()
const { baton } = rehearsal
const nameOf = (turn: Turn) => (draft.form ? turnName(draft.form, turn) : turn.code)
const isHeld = computed(() => baton.current?.code === props.turn.code)
const problems = computed(() => (rehearsal.filled ? turnProblems(rehearsal.filled, props.turn) : []))
/** The turns that it can be given back to, the last one first. */
const earlier = computed(() =>
  [...baton.taken]
    .reverse()
    .flatMap(code => draft.form?.turns?.find(t => t.code === code && code !== props.turn.code) ?? []),
)
const isDone = computed(() => baton.current === null)
const heading = computed(() => {
  if (isHeld.value) return problems.value.length > 0 ? 'Not complete yet' : 'All answered'
  if (isDone.value) return 'The response is done'
  return baton.taken.includes(props.turn.code)
    ? `Handed on to ${baton.current ? nameOf(baton.current) : ''}`
    : `It is the turn of ${baton.current ? nameOf(baton.current) : ''}`
})
function giveBack(turn: Turn) {
  baton.giveBack(turn.code)
  emit('take', turn.code)
}
</script>

<template>
  <h2>{{ heading }}</h2>
  <template v-if="isHeld">
    <ul v-if="problems.length > 0">
      <li
        v-for="(p, i) in problems"
        :key="i"
      >
        {{ p.step.place.number }}: {{ p.sentence }}
      </li>
    </ul>
    <p
      v-else
      class="quiet"
    >
      The party would check its answers now. Who is next is decided by the hand-offs of the form.
    </p>
  </template>
  <div class="row-flex foot">
    <v-btn @click="emit('back')"> Back </v-btn>
    <template v-if="isHeld">
      <v-btn
        variant="flat"
        color="primary"
        :disabled="problems.length > 0"
        @click="baton.handOn(turn)"
      >
        Hand on
      </v-btn>
      <v-btn
        v-for="t in earlier"
        :key="t.code"
        @click="giveBack(t)"
        >Give it back to {{ nameOf(t) }}</v-btn
      >
    </template>
    <v-btn
      v-else-if="baton.current"
      variant="flat"
      color="primary"
      @click="emit('take', baton.current.code)"
      >Take the turn of {{ nameOf(baton.current) }}</v-btn
    >
  </div>
</template>

<style scoped>
ul {
  padding-left: 20px;
}
.foot {
  margin-top: 28px;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
