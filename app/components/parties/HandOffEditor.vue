<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { HandOff } from '#core/form/turns'

/** One hand-off of a turn: a sentence, that opens to be changed. */
const props = defineProps<{
  handOff: HandOff
  /** The name of the turn in front of it, as “Turn 2: hand-off 1”. */
  name: string
  number: number
  targets: readonly { value: string; title: string }[]
  /** It was just added, and begins open. */
  isNew: boolean
}>()
const emit = defineEmits<{ change: [handOff: HandOff]; remove: []; move: [from: number, to: number] }>()
const draft = useDraft()
const isOpen = ref(props.isNew)
const last = computed(() => draft.places.findLast(p => p.kind === 'section'))
const target = computed(
  () => props.targets.find(t => t.value === props.handOff.to)?.title ?? props.handOff.to,
)
function setRule(when: string | null) {
  const { to } = props.handOff
  emit('change', when === null ? { to } : { when, to })
}
</script>

<template>
  <div
    class="hand"
    data-moves
  >
    <div class="row-flex">
      <DragHandle
        :name="`Move hand-off ${number}`"
        :at="number - 1"
        among="hand-offs"
        @move="(from, to) => emit('move', from, to)"
      />
      <template v-if="isOpen">
        <span class="small quiet">on to</span>
        <v-select
          class="to"
          :model-value="handOff.to"
          :aria-label="name"
          :items="targets"
          @update:model-value="emit('change', { ...handOff, to: $event })"
        />
      </template>
      <span
        v-else
        class="small sentence"
        >on to <strong>{{ target }}</strong>{{ ' '
        }}<RuleSentence
          v-if="handOff.when !== undefined"
          words="when"
          :text="handOff.when"
      /></span>
      <span class="spread" />
      <v-btn
        variant="text"
        :aria-expanded="isOpen"
        :aria-label="isOpen ? `Done with hand-off ${number}` : `Change hand-off ${number}`"
        @click="isOpen = !isOpen"
      >
        {{ isOpen ? 'done' : 'change' }}
      </v-btn>
      <IconButton
        :icon="mdiClose"
        :name="`Remove hand-off ${number}`"
        @click="emit('remove')"
      />
    </div>
    <RuleField
      v-if="isOpen && last"
      words="Handed off when"
      :text="handOff.when"
      :place="last"
      :part="name"
      @change="setRule"
      ><template #none><span class="small quiet">always</span></template></RuleField
    >
  </div>
</template>

<style scoped>
.hand {
  display: grid;
  gap: 6px;
  border-left: 1px solid var(--line);
  padding-left: 4px;
}
.to {
  flex: 0 1 220px;
}
.sentence {
  min-width: 0;
}
</style>
