<script setup lang="ts">
import { leaderOf } from '#core/form/alongside'
import type { Turn } from '#core/form/turns'
import { turnName, turnProblems } from '#core/parties/turns'

/** The end of a turn that is rehearsed: what keeps it from being handed on, the hand-off by the real rules, and giving back. */
const props = defineProps<{ turn: Turn }>()
const emit = defineEmits<{ back: []; take: [code: string] }>()
const draft = useDraft()
const rehearsal = useRehearsal()
const { baton } = rehearsal
const nameOf = (turn: Turn) => (draft.form ? turnName(draft.form, turn) : turn.code)
const isHeld = computed(() => baton.open.some(t => t.code === props.turn.code))
/** Whose turn it is, or whose turns. */
const openNames = computed(() => baton.open.map(nameOf).join(' and '))
const problems = computed(() => (rehearsal.filled ? turnProblems(rehearsal.filled, props.turn) : []))
/** The turns that it can be given back to, the last one first. */
const earlier = computed(() => baton.earlierThan(props.turn))
const isDone = computed(() => baton.open.length === 0)
/** Whether a turn that was open at once with this one waits still. */
const isBesideOpen = computed(() => {
  const { form } = draft
  return form !== null && baton.open.some(t => leaderOf(form, t) === leaderOf(form, props.turn))
})
const heading = computed(() => {
  if (isHeld.value) return problems.value.length > 0 ? 'Not complete yet' : 'All answered'
  if (isDone.value) return 'The response is done'
  if (!baton.taken.includes(props.turn.code)) return `It is the turn of ${openNames.value}`
  return isBesideOpen.value ? `Handed on; it waits for ${openNames.value}` : `Handed on to ${openNames.value}`
})
function giveBack(turn: Turn) {
  baton.giveBack(turn)
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
    <template v-else>
      <v-btn
        v-for="t in baton.open"
        :key="t.code"
        variant="flat"
        color="primary"
        @click="emit('take', t.code)"
        >Take the turn of {{ nameOf(t) }}</v-btn
      >
    </template>
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
