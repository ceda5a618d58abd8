<script setup lang="ts">
const emit = defineEmits<{ close: [] }>()
const KEYS = [
  ['↑ ↓', 'go from row to row'],
  ['Shift ↑ ↓', 'select a stretch'],
  ['Ctrl A', 'select all'],
  ['Enter', 'type a line below'],
  ['/', 'in an empty line: choose its type'],
  ['Space', 'open the row, close it'],
  ['Tab, Shift Tab', 'into the group above, out of a group'],
  ['Alt ↑ ↓', 'move'],
  ['Alt M', 'move to …'],
  ['Ctrl C, X, V', 'copy, cut, paste; also into another form'],
  ['Ctrl D', 'duplicate'],
  ['Ctrl G', 'group'],
  ['Delete', 'delete'],
  ['Ctrl F', 'find and replace'],
  ['Ctrl K', 'the list of commands'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['Alt N', 'start the rehearsal afresh'],
] as const
const close = useTemplateRef('close')
onMounted(() => focusOn(close.value))
</script>

<template>
  <div
    class="keys"
    role="group"
    aria-label="Keys"
    @keydown.esc.stop="emit('close')"
  >
    <dl>
      <div
        v-for="[key, words] in KEYS"
        :key="key"
      >
        <dt>
          <kbd>{{ key }}</kbd>
        </dt>
        <dd>{{ words }}</dd>
      </div>
    </dl>
    <v-btn
      ref="close"
      variant="text"
      @click="emit('close')"
    >
      Close
    </v-btn>
  </div>
</template>

<style scoped>
.keys {
  padding: 10px 16px;
  border-bottom: 1px solid var(--line);
  background: var(--linen);
}
dl {
  columns: 2;
  column-gap: 24px;
}
dl div {
  display: flex;
  gap: 10px;
  padding: 2px 0;
  break-inside: avoid;
  font-size: 13px;
}
dt {
  min-width: 120px;
}
</style>
