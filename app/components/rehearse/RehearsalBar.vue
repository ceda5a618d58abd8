<script setup lang="ts">
import { mdiCellphone, mdiMonitor, mdiTablet } from '@mdi/js'
import type { Turn } from '#core/form/turns'
import { turnName } from '#core/parties/turns'
import type { FrameWidth } from '~/composables/rehearse/useRehearsalFrames'

/** The bar above a live form: as whom, in which section, how wide. */
const WIDTHS: readonly { value: FrameWidth; title: string; icon: string }[] = [
  { value: 'phone', title: 'phone', icon: mdiCellphone },
  { value: 'tablet', title: 'tablet', icon: mdiTablet },
  { value: 'desk', title: 'desk', icon: mdiMonitor },
]
const as = defineModel<string | null>('as', { required: true })
const width = defineModel<FrameWidth>('width', { required: true })
const props = defineProps<{ turns: readonly Turn[]; section: number | null; scale: number }>()
const emit = defineEmits<{ jump: [section: number] }>()
const draft = useDraft()
const rehearsal = useRehearsal()
const nameOf = (turn: Turn) => (draft.form ? turnName(draft.form, turn) : turn.code)
/** Two turns that are called the same are told apart by their place among all. */
function partyTitle(turn: Turn, at: number) {
  const isAlone = props.turns.filter(t => nameOf(t) === nameOf(turn)).length === 1
  return isAlone ? `as ${nameOf(turn)}` : `as ${nameOf(turn)}, turn ${at + 1}`
}
const parties = computed(() => [
  { value: null, title: 'All of the form' },
  ...props.turns.map((turn, at) => ({ value: turn.code, title: partyTitle(turn, at) })),
])
/** Any section can be gone to; one that the answers do not lead to is told, with its reason. */
const sections = computed(() =>
  (draft.form?.sections ?? []).map((s, i) => {
    const isReached = rehearsal.filled?.path.includes(i) ?? false
    return { value: i, title: `${i + 1} ${s.title}${isReached ? '' : ' (not reached)'}` }
  }),
)
</script>

<template>
  <div class="pane-bar">
    <slot name="before" />
    <v-select
      v-if="turns.length > 0"
      v-model="as"
      class="go as"
      aria-label="Rehearse as"
      :items="parties"
    />
    <v-select
      v-if="as === null"
      class="go"
      aria-label="Go to section"
      :model-value="section ?? ''"
      :items="sections"
      @update:model-value="emit('jump', Number($event))"
    />
    <span class="spread" />
    <span
      v-if="scale < 1"
      class="small quiet scale"
      title="Made smaller as a whole, to stand beside the others"
      >{{ Math.round(scale * 100) }} %</span
    >
    <SegmentedChoice
      v-model="width"
      class="widths"
      :options="WIDTHS"
      name="Width"
    />
    <slot />
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
@container (max-width: 400px) {
  .scale {
    display: none;
  }
}
@container (max-width: 560px) {
  :slotted(strong) {
    display: none;
  }
}
</style>
