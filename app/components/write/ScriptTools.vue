<script setup lang="ts">
/** The panels of the script and how to add to it. */
export type ScriptPanel = 'settings' | 'find' | 'shelf' | 'move' | 'keys'
const panel = defineModel<ScriptPanel | null>('panel', { required: true })
const emit = defineEmits<{ outline: []; add: [] }>()
const toggle = (key: ScriptPanel) => (panel.value = panel.value === key ? null : key)
</script>

<template>
  <div class="tools-bar">
    <v-btn
      variant="text"
      :aria-expanded="panel === 'settings'"
      @click="toggle('settings')"
    >
      Form settings
    </v-btn>
    <v-btn
      variant="text"
      @click="emit('outline')"
    >
      Paste an outline
    </v-btn>
    <v-btn
      variant="text"
      :aria-expanded="panel === 'shelf'"
      @click="toggle('shelf')"
    >
      Shelf
    </v-btn>
    <v-btn
      variant="text"
      :aria-expanded="panel === 'find'"
      @click="toggle('find')"
    >
      Find <kbd>Ctrl F</kbd>
    </v-btn>
    <span class="spread" />
    <v-btn
      variant="text"
      aria-label="Keys of the script"
      @click="toggle('keys')"
    >
      <kbd>?</kbd> keys
    </v-btn>
    <v-btn
      variant="text"
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
