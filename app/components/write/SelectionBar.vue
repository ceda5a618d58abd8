<script setup lang="ts">
import { mdiArrowUpDown, mdiContentDuplicate, mdiGroup, mdiTrashCanOutline } from '@mdi/js'
import type { Edit } from '#core/form/edits'
import { placeName } from '#core/form/walk'

/** What can be done with several rows at once. */
const emit = defineEmits<{ move: [] }>()
const draft = useDraft()
const script = useScript()
const clip = useRuleClip()
const chosen = computed(() => draft.places.filter(p => draft.selection.includes(p.address)))
const asked = computed(() =>
  chosen.value.filter(p => p.kind === 'question' && p.node.type !== 'value' && p.node.type !== 'hidden'),
)

function put(how: 'shown' | 'required' | 'both') {
  const { text } = clip
  if (text === null) return
  draft.edit(
    chosen.value.flatMap((p): Edit[] => {
      const shown = how === 'required' ? {} : { shownWhen: text }
      const required =
        how !== 'shown' && asked.value.includes(p) ? { required: how === 'both' ? true : text } : {}
      const set = { ...shown, ...required }
      return Object.keys(set).length > 0 ? [{ do: 'change', what: p.address, set }] : []
    }),
  )
}
const clear = () =>
  draft.edit(chosen.value.map(p => ({ do: 'change', what: p.address, set: { shownWhen: null } })))
const require = (required: boolean) =>
  draft.edit(
    asked.value.map(p => ({ do: 'change', what: p.address, set: { required: required ? true : null } })),
  )
</script>

<template>
  <div
    class="selection"
    role="toolbar"
    aria-label="Selected rows"
  >
    <strong class="small">{{ chosen.length }} rows</strong>
    <template v-if="clip.text !== null">
      <span class="small quiet">put the copied rule on them:</span>
      <v-btn
        variant="text"
        @click="put('shown')"
      >
        shown when
      </v-btn>
      <v-btn
        variant="text"
        @click="put('both')"
      >
        shown and required
      </v-btn>
      <v-btn
        variant="text"
        @click="put('required')"
      >
        required when
      </v-btn>
    </template>
    <v-btn
      variant="text"
      @click="clear"
    >
      Take shown-when away
    </v-btn>
    <v-btn
      variant="text"
      :disabled="asked.length === 0"
      @click="require(true)"
    >
      Require
    </v-btn>
    <IconButton
      :icon="mdiGroup"
      name="Group"
      @click="script.group()"
    />
    <IconButton
      :icon="mdiContentDuplicate"
      name="Duplicate"
      @click="script.duplicate()"
    />
    <IconButton
      :icon="mdiArrowUpDown"
      name="Move to…"
      @click="emit('move')"
    />
    <IconButton
      :icon="mdiTrashCanOutline"
      name="Delete"
      @click="script.remove()"
    />
    <span
      class="hidden-words"
      aria-live="polite"
      >{{ chosen.length }} rows are selected, the last is
      {{ chosen.at(-1) ? placeName(chosen.at(-1)!) : '' }}</span
    >
  </div>
</template>

<style scoped>
.selection {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  padding: 5px 16px;
  background: var(--verdigris-wash);
  border-bottom: 1px solid var(--verdigris);
  flex: none;
}
</style>
