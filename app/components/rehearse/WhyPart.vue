<script setup lang="ts">
import { sentenceOf, sentenceText } from '#core/expressions/sentence'
import type { Part } from '#core/fill/explain'

/** A part of a condition: true, false or unknown, in words, with the answers that decided it. */
const props = defineProps<{ part: Part }>()
const draft = useDraft()
const MODES = { all: 'all of', any: 'any of', none: 'none of' }
const outcome = computed(() => String(props.part.outcome ?? 'unknown'))
const words = computed(() => {
  if (props.part.mode) return MODES[props.part.mode]
  return draft.words ? sentenceText(sentenceOf(props.part.expr, draft.words)) : ''
})
const numberOf = (code: string) =>
  draft.places.find(p => p.code === code && p.kind !== 'section')?.number ?? code
</script>

<template>
  <div class="why-part">
    <p class="small">
      <b :class="outcome">{{ outcome }}</b> {{ words }}
    </p>
    <p
      v-if="part.answers.length > 0"
      class="small quiet answers"
    >
      —
      <template
        v-for="(a, i) in part.answers"
        :key="a.code"
        >{{ i > 0 ? '; ' : ''
        }}{{
          a.told === 'blank' || a.told === 'not asked'
            ? `${numberOf(a.code)} is ${a.told}`
            : `you answered ${a.told} in ${numberOf(a.code)}`
        }}</template
      >
    </p>
    <div
      v-if="part.parts.length > 0"
      class="inner"
    >
      <WhyPart
        v-for="(p, i) in part.parts"
        :key="i"
        :part="p"
      />
    </div>
  </div>
</template>

<style scoped>
.true {
  color: var(--verdigris);
}
.false {
  color: var(--madder);
}
.unknown {
  color: var(--weld);
}
.answers {
  padding-left: 12px;
}
.inner {
  padding-left: 14px;
  border-left: 1px solid var(--line);
  display: grid;
  gap: 2px;
}
</style>
