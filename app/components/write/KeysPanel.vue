<script setup lang="ts">
const emit = defineEmits<{ close: [] }>()
/** The keys of an action, each in Vuetify's spelling, and what it does. */
const KEYS = [
  [['up', 'down'], 'go from row to row'],
  [['left', 'right'], 'fold the section, unfold it'],
  [['shift+up', 'shift+down'], 'select a stretch'],
  [['ctrl+a'], 'select all'],
  [['enter'], 'type a line below'],
  [['/'], 'in the line that is typed: choose its type'],
  [['space'], 'open the row, close it'],
  [['tab', 'shift+tab'], 'into the group above, out of it'],
  [['alt+up', 'alt+down'], 'move'],
  [['alt+m'], 'move to …'],
  [['ctrl+c', 'ctrl+x', 'ctrl+v'], 'copy, cut, paste; also into another form'],
  [['ctrl+d'], 'duplicate'],
  [['ctrl+g'], 'group'],
  [['delete'], 'delete'],
  [['ctrl+f'], 'find and replace'],
  [['ctrl+k'], 'the list of commands'],
  [['ctrl+z', 'ctrl+shift+z'], 'undo, redo'],
  [['alt+n'], 'start the rehearsal afresh'],
] as const
</script>

<template>
  <PlainDialog
    title="Keys of the script"
    :width="880"
    @close="emit('close')"
  >
    <dl>
      <div
        v-for="[keys, words] in KEYS"
        :key="words"
      >
        <dt>
          <v-hotkey
            v-for="key in keys"
            :key="key"
            :keys="key"
            platform="pc"
          />
        </dt>
        <dd>{{ words }}</dd>
      </div>
    </dl>
  </PlainDialog>
</template>

<style scoped>
dl {
  columns: 2;
  column-gap: 28px;
}
dl > div {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  align-items: baseline;
  gap: 10px;
  padding: 3px 0;
  break-inside: avoid;
  font-size: 13px;
}
dt {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
}
</style>
