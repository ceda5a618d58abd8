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
    <v-select
      v-if="turns.length > 0"
      v-model="as"
      class="go as"
      aria-label="Rehearse as"
      :items="[
        { value: null, title: 'All of the form' },
        ...turns.map(t => ({ value: t.code, title: `as ${draft.form ? turnName(draft.form, t) : t.code}` })),
      ]"
    />
    <v-select
      v-if="as === null"
      class="go"
      aria-label="Go to section"
      :model-value="section ?? ''"
      @update:model-value="emit('jump', Number($event))"
      :items="
        sections.map(s => ({
          value: s.i,
          title: `${s.i + 1} ${s.title}${s.reached ? '' : ' (not reached)'}`,
        }))
      "
    />
    <span class="spread" />
    <v-btn-toggle
      v-model="width"
      aria-label="Width"
    >
      <v-btn
        v-for="w in WIDTHS"
        :key="w"
        :value="w"
      >
        {{ w }}
      </v-btn>
    </v-btn-toggle>
    <AnswerSets @said="emit('said', $event)" />
    <v-btn
      variant="text"
      aria-keyshortcuts="Alt+N"
      @click="emit('afresh')"
    >
      Start afresh
    </v-btn>
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
}
.go.as {
  flex-basis: 136px;
}
</style>
