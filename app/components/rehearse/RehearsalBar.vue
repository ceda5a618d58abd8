<script setup lang="ts">
import type { Turn } from '#core/form/turns'
import { turnName } from '#core/parties/turns'

/** The bar above the live form: as whom, in which section, how wide, with which answers. */
export type Width = (typeof WIDTHS)[number]
const WIDTHS = ['phone', 'tablet', 'desk'] as const
const as = defineModel<string | null>('as', { required: true })
const width = defineModel<Width>('width', { required: true })
defineProps<{ turns: readonly Turn[]; section: number | null }>()
const emit = defineEmits<{ jump: [section: number]; afresh: []; said: [text: string] }>()
const draft = useDraft()
const rehearsal = useRehearsal()
/** Any section can be gone to; one that the answers do not lead to is told, with its reason. */
const sections = computed(() =>
  (draft.form?.sections ?? []).map((s, i) => ({
    i,
    title: s.title,
    reached: rehearsal.filled?.path.includes(i) ?? false,
  })),
)
</script>

<template>
  <div class="pane-bar">
    <strong>Rehearsal</strong>
    <select
      v-if="turns.length > 0"
      v-model="as"
      class="field go as"
      aria-label="Rehearse as"
    >
      <option :value="null">All of the form</option>
      <option
        v-for="t in turns"
        :key="t.code"
        :value="t.code"
      >
        as {{ draft.form ? turnName(draft.form, t) : t.code }}
      </option>
    </select>
    <select
      v-if="as === null"
      class="field go"
      aria-label="Go to section"
      :value="section ?? ''"
      @change="emit('jump', Number(inputText($event)))"
    >
      <option
        v-for="s in sections"
        :key="s.i"
        :value="s.i"
      >
        {{ s.i + 1 }} {{ s.title }}{{ s.reached ? '' : ' (not reached)' }}
      </option>
    </select>
    <span class="spread" />
    <span
      class="widths"
      role="radiogroup"
      aria-label="Width"
    >
      <button
        v-for="w in WIDTHS"
        :key="w"
        role="radio"
        :aria-checked="width === w"
        @click="width = w"
      >
        {{ w }}
      </button>
    </span>
    <AnswerSets @said="emit('said', $event)" />
    <button
      class="text-button"
      aria-keyshortcuts="Alt+N"
      @click="emit('afresh')"
    >
      Start afresh
    </button>
  </div>
</template>

<style scoped>
.pane-bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  min-height: 40px;
  padding: 0 16px;
  border-bottom: 1px solid var(--line);
  flex: none;
}
.go {
  flex: 1 1 90px;
  max-width: 160px;
  min-width: 0;
  font-size: 13px;
  min-height: 26px;
}
.go.as {
  flex-basis: 136px;
}
.text-button {
  white-space: nowrap;
}
</style>
