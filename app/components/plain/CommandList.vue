<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { VCommandPalette } from 'vuetify/labs/VCommandPalette'
import type { Command } from '~/composables/commands'

/** What can be done and gone to, by a few letters; Ctrl K opens it from wherever one is. */
const props = defineProps<{
  /** Asked for while the list is open: a form of a thousand rows is typed in meanwhile. */
  commands: () => readonly Command[]
  placeholder: string
}>()
const open = ref(false)
const wanted = ref('')
const MOST = 14

const isExact = ({ names }: Command) => names?.includes(wanted.value.trim().toLowerCase()) === true
const items = computed(() => {
  if (!open.value) return []
  const found = props.commands().filter(c => hasWords(`${c.words} ${c.hint}`, wanted.value))
  return [...found.filter(isExact), ...found.filter(c => !isExact(c))]
    .slice(0, MOST)
    .map(c => ({ title: c.words, hint: c.hint, onClick: c.run }))
})

const isInList = (event: Event) =>
  event.target instanceof HTMLElement && event.target.closest('.v-command-palette') !== null
/** Typed before the list has the focus: it is for the list all the same, and nothing under it gets a key. */
function typeAhead(event: KeyboardEvent) {
  event.preventDefault()
  event.stopPropagation()
  if (event.key === 'Escape') open.value = false
  else if (event.key === 'Backspace') wanted.value = wanted.value.slice(0, -1)
  else if (event.key.length === 1 && !event.ctrlKey && !event.metaKey) wanted.value += event.key
}
function onKey(event: KeyboardEvent) {
  const isOpening = (event.ctrlKey || event.metaKey) && !event.altKey && event.key.toLowerCase() === 'k'
  if (isOpening) {
    event.preventDefault()
    event.stopPropagation()
    open.value = !open.value
  } else if (open.value && !isInList(event)) typeAhead(event)
  // What the list leaves alone, such as Ctrl Z in its field, is not for the form under it.
  else if (open.value && (event.ctrlKey || event.altKey || event.metaKey)) event.stopPropagation()
}
useEventListener('keydown', onKey, { capture: true })
</script>

<template>
  <v-btn
    class="tool"
    aria-label="Ctrl K: list of commands"
    @click="open = true"
  >
    <kbd>Ctrl K</kbd>
  </v-btn>
  <v-command-palette
    v-model="open"
    v-model:search="wanted"
    :items="items"
    content-class="v-command-palette"
    no-filter
    no-data-text="Nothing goes by these words."
    aria-label="Commands"
  >
    <template #input="{ props: input }">
      <v-text-field
        v-bind="input"
        v-model="wanted"
        aria-label="Command or row"
        :placeholder="placeholder"
      />
    </template>
    <template #[`item.append`]="{ item }">
      <code class="quiet">{{ 'hint' in item ? item.hint : '' }}</code>
    </template>
  </v-command-palette>
</template>

<style scoped>
.tool {
  min-height: 28px;
  padding: 1px 6px;
  font-size: 13px;
}
</style>
