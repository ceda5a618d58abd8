<script setup lang="ts">
import { exitName, plainExits, RULE_WORDS, rulesAt, type Rule } from '#core/form/rules'
import type { Place } from '#core/form/walk'

/** The rules of a line as sentences, and where it always leads on. */
const props = defineProps<{ place: Place }>()
const draft = useDraft()
const rules = computed(() => rulesAt(props.place))
const exits = computed(() => plainExits([props.place]))
const exitTo = (index: number) => exitName(draft.places, { place: props.place, index })
const isExit = ({ kind }: Rule) => kind === 'route' || kind === 'skip'
</script>

<template>
  <span
    v-for="r in rules"
    :key="r.id"
    class="rule-line"
  >
    <RuleSentence
      :words="isExit(r) ? `→ ${exitTo(r.index)} when` : RULE_WORDS[r.kind]"
      :text="r.text"
    />
  </span>
  <span
    v-for="e in exits"
    :key="e.id"
    class="rule-line exit"
    >→ then on to <b>{{ exitTo(e.index) }}</b></span
  >
</template>

<style scoped>
.exit {
  font-size: 13px;
  font-weight: 400;
  color: var(--verdigris);
}
.rule-line {
  line-height: 1.25;
  font-weight: 400;
}
</style>
