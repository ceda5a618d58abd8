<script setup lang="ts">
import { placeName } from '#core/form/walk'
import type { Turn } from '#core/form/turns'
import { addressLine, useTurns } from '~/composables/write/useTurns'

/** The turns in order, one beside the other: whose it is, who acts. */
const at = defineModel<number>('at', { required: true })
const draft = useDraft()
const { turns, parties, nameOf, add } = useTurns()
const partyOf = (turn: Turn) => parties.value.find(p => p.code === turn.party)?.name ?? turn.party
function actorWords({ by }: Turn): string {
  if (by === 'link') return 'anyone with the link'
  if ('people' in by) return by.rotate ? `${by.people}, in rotation` : `anyone of ${by.people}`
  if (!('answer' in by)) return addressLine(by)
  const asked = draft.places.find(p => p.code === by.answer)
  return `whoever ${asked ? placeName(asked) : by.answer} names`
}
function addTurn() {
  if (add()) at.value = turns.value.length - 1
}
</script>

<template>
  <div
    class="strip"
    role="radiogroup"
    aria-label="Turns in order"
  >
    <v-btn
      v-for="(t, i) in turns"
      :key="t.code"
      variant="outlined"
      class="turn"
      role="radio"
      :aria-checked="at === i"
      :class="{ on: at === i, beside: t.alongside !== undefined }"
      @click="at = i"
    >
      <strong>{{ i + 1 }} {{ nameOf(t) }}</strong>
      <span
        v-if="t.alongside !== undefined"
        class="small"
        >at once with {{ turns.findIndex(o => o.code === t.alongside) + 1 }}</span
      >
      <span>{{ partyOf(t) }}</span>
      <span class="small quiet">{{ actorWords(t) }}</span>
    </v-btn>
    <v-btn
      variant="text"
      class="new"
      @click="addTurn"
    >
      + turn
    </v-btn>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  overflow-x: auto;
}
.turn {
  flex: 1 1 0;
  max-width: 220px;
  min-width: 140px;
  padding: 10px 14px;
  align-items: start;
  justify-content: start;
  margin-left: -1px;
  border-radius: 0;
}
.turn :deep(.v-btn__content) {
  display: grid;
  gap: 2px;
  overflow-wrap: anywhere;
}
.turn:first-child {
  margin-left: 0;
}
.turn:hover {
  text-decoration: none;
  background: var(--verdigris-wash);
}
.turn.beside {
  border-left-style: dashed;
}
.turn.on {
  border: 2px solid var(--verdigris);
  z-index: 1;
}
.new {
  border: 1px dashed var(--line);
  min-width: 110px;
  margin-left: -1px;
}
</style>
