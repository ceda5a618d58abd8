<script setup lang="ts">
/** The panels of the script and how to add to it. */
export type ScriptPanel = 'settings' | 'find' | 'shelf' | 'move' | 'keys'
const panel = defineModel<ScriptPanel | null>('panel', { required: true })
const emit = defineEmits<{ outline: []; add: [] }>()
const toggle = (key: ScriptPanel) => (panel.value = panel.value === key ? null : key)
</script>

<template>
  <div class="tools-bar">
    <button
      class="text-button"
      :aria-expanded="panel === 'settings'"
      @click="toggle('settings')"
    >
      Form settings
    </button>
    <button
      class="text-button"
      @click="emit('outline')"
    >
      Paste an outline
    </button>
    <button
      class="text-button"
      :aria-expanded="panel === 'shelf'"
      @click="toggle('shelf')"
    >
      Shelf
    </button>
    <button
      class="text-button"
      :aria-expanded="panel === 'find'"
      @click="toggle('find')"
    >
      Find <kbd>Ctrl F</kbd>
    </button>
    <span class="spread" />
    <button
      class="text-button"
      aria-label="Keys of the script"
      @click="toggle('keys')"
    >
      <kbd>?</kbd> keys
    </button>
    <button
      class="text-button"
      @click="emit('add')"
    >
      Add <kbd>Enter</kbd>
    </button>
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
