<script setup lang="ts">
import { mdiCellphone, mdiMonitor, mdiRestart, mdiTablet } from '@mdi/js'
import type { Turn } from '#core/form/turns'
import { turnName } from '#core/parties/turns'

/** The bar above the live form: as whom, in which section, how wide, with which answers. */
export type Width = (typeof WIDTHS)[number]['value']
const WIDTHS = [
  { value: 'phone', title: 'phone', icon: mdiCellphone },
  { value: 'tablet', title: 'tablet', icon: mdiTablet },
  { value: 'desk', title: 'desk', icon: mdiMonitor },
] as const
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
      :items="
        sections.map(s => ({
          value: s.i,
          title: `${s.i + 1} ${s.title}${s.reached ? '' : ' (not reached)'}`,
        }))
      "
      @update:model-value="emit('jump', Number($event))"
    />
    <span class="spread" />
    <SegmentedChoice
      v-model="width"
      class="widths"
      :options="WIDTHS"
      name="Width"
    />
    <AnswerSets @said="emit('said', $event)" />
    <IconButton
      :icon="mdiRestart"
      name="Start afresh"
      keys="Alt N"
      aria-keyshortcuts="Alt+N"
      @click="emit('afresh')"
    />
  </div>
</template>

<style scoped>
.pane-bar {
  display: flex;
  align-items: center;
  gap: 4px 8px;
  min-height: 40px;
  padding: 0 12px 0 16px;
  border-bottom: 1px solid var(--line);
  flex: none;
}
.go {
  flex: 1 1 60px;
  max-width: 160px;
  min-width: 0;
  font-size: 13px;
}
.widths {
  flex: none;
}
.pane-bar {
  container-type: inline-size;
}
@container (max-width: 420px) {
  strong {
    display: none;
  }
}
</style>
