<script setup lang="ts">
import type { EffectState } from '~/composables/suggest/useProposalEffects'
import { SEVERITY_MARKS } from '~/theme/severityMarks'

/** What the prover says differently once a proposal is taken. */
const props = defineProps<{ state: EffectState | undefined }>()
const effect = computed(() => (props.state?.kind === 'proved' ? props.state.effect : null))
const isNone = computed(() => effect.value?.come.length === 0 && effect.value.gone.length === 0)
const groups = computed(() =>
  effect.value
    ? [
        { words: 'comes', findings: effect.value.come },
        { words: 'goes', findings: effect.value.gone },
      ].filter(g => g.findings.length > 0)
    : [],
)
const FAILURES = {
  impossible: 'It can’t be taken as the form is now:',
  failed: 'It could not be proved:',
} as const
</script>

<template>
  <div
    class="effect small"
    role="status"
  >
    <p
      v-if="!state || state.kind === 'proving'"
      class="quiet"
    >
      Being proved …
    </p>
    <p
      v-else-if="state.kind !== 'proved'"
      class="fault"
    >
      {{ FAILURES[state.kind] }} {{ state.reason }}
    </p>
    <p
      v-else-if="isNone"
      class="proven"
    >
      ✓ Proved with it: nothing is found that is not found without it.
    </p>
    <ul v-else>
      <template
        v-for="g in groups"
        :key="g.words"
      >
        <li
          v-for="(f, i) in g.findings"
          :key="`${g.words}${i}`"
        >
          <b>{{ g.words }}</b>
          <span
            :class="g.words === 'comes' ? f.severity : 'quiet'"
            aria-hidden="true"
            >{{ SEVERITY_MARKS[f.severity] }}</span
          >
          {{ f.severity }}: {{ f.sentence }}
        </li>
      </template>
    </ul>
  </div>
</template>

<style scoped>
.effect ul {
  display: grid;
  gap: 3px;
}
b {
  display: inline-block;
  min-width: 48px;
  font-weight: 600;
}
</style>
