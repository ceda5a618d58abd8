<script setup lang="ts">
import { useFillRest } from '~/composables/rehearse/useFillRest'
import { VCommandPalette } from 'vuetify/labs/VCommandPalette'
import { placeName } from '#core/form/walk'

/** The list of commands, and every row of the form, by a few letters. */
const draft = useDraft()
const rehearsal = useRehearsal()
const open = ref(false)
const wanted = ref('')
const MOST = 14

interface Command {
  words: string
  hint: string
  run: () => void
}
const to =
  (stage: string, query: Record<string, string> = {}) =>
  () =>
    void navigateTo({ path: `/forms/${draft.id}/${stage}`, query })
const fillRest = useFillRest()
const commands = computed((): Command[] => [
  { words: 'Write: the script', hint: '', run: to('write') },
  { words: 'Write: the rulebook', hint: '', run: to('write', { view: 'rulebook' }) },
  { words: 'Write: the history', hint: '', run: to('write', { view: 'history' }) },
  { words: 'Rehearse', hint: '', run: to('rehearse') },
  { words: 'Prove', hint: '', run: to('prove') },
  { words: 'Release', hint: '', run: to('release') },
  { words: 'Collect', hint: '', run: to('collect') },
  { words: 'Undo', hint: 'Ctrl Z', run: draft.undo },
  { words: 'Redo', hint: 'Ctrl Shift Z', run: draft.redo },
  { words: 'Start the rehearsal afresh', hint: 'Alt N', run: rehearsal.startAfresh },
  { words: 'Fill the rest of the rehearsal', hint: '', run: fillRest },
  { words: 'All forms', hint: '', run: () => void navigateTo('/') },
])
const rows = computed((): Command[] =>
  draft.places.map(p => ({
    words: `${p.number} ${placeName(p)}`,
    hint: p.code,
    run: () => {
      draft.select(p.address)
      void navigateTo(`/forms/${draft.id}/write`)
    },
  })),
)
/** Only while the list is open: a form of a thousand rows is typed in meanwhile. */
const items = computed(() => {
  if (!open.value) return []
  return [...commands.value, ...rows.value]
    .filter(c => hasWords(`${c.words} ${c.hint}`, wanted.value))
    .slice(0, MOST)
    .map(c => ({ title: c.words, hint: c.hint, onClick: c.run }))
})
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
    hotkey="ctrl+k"
    no-filter
    no-data-text="Nothing goes by these words."
    aria-label="Commands"
  >
    <template #input="{ props }">
      <v-text-field
        v-bind="props"
        v-model="wanted"
        aria-label="Command or row"
        placeholder="A command, or a row by number, label or code"
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
