<script setup lang="ts">
import { mdiBookshelf, mdiClipboardTextOutline, mdiKeyboardOutline, mdiMagnify, mdiPlus } from '@mdi/js'

/** The panels of the script and how to add to it. */
const draft = useDraft()
const folds = useFolded()
export type ScriptPanel = 'find' | 'shelf' | 'move' | 'keys'
const panel = defineModel<ScriptPanel | null>('panel', { required: true })
const emit = defineEmits<{ outline: []; add: [] }>()
const toggle = (key: ScriptPanel) => (panel.value = panel.value === key ? null : key)
</script>

<template>
  <div class="tools-bar">
    <v-btn
      v-if="draft.canEdit"
      variant="text"
      :prepend-icon="mdiClipboardTextOutline"
      @click="emit('outline')"
    >
      Paste an outline
    </v-btn>
    <v-btn
      v-if="draft.canEdit"
      variant="text"
      :prepend-icon="mdiBookshelf"
      :aria-expanded="panel === 'shelf'"
      @click="toggle('shelf')"
    >
      Shelf
    </v-btn>
    <v-btn
      v-if="draft.places.length > 20 || folds.any"
      variant="text"
      @click="folds.foldAll(!folds.any)"
    >
      {{ folds.any ? 'Unfold all' : 'Fold sections' }}
    </v-btn>
    <span class="spread" />
    <IconButton
      :icon="mdiMagnify"
      name="Find"
      keys="Ctrl F"
      :aria-expanded="panel === 'find'"
      @click="toggle('find')"
    />
    <IconButton
      :icon="mdiKeyboardOutline"
      name="Keys of the script"
      keys="?"
      @click="toggle('keys')"
    />
    <v-btn
      v-if="draft.canEdit"
      variant="text"
      :prepend-icon="mdiPlus"
      @click="emit('add')"
    >
      Add <kbd>Enter</kbd>
    </v-btn>
  </div>
</template>

<style scoped>
.tools-bar {
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 34px;
  padding: 0 16px;
  border-bottom: 1px solid var(--line);
  flex: none;
}
</style>
