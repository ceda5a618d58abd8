<script setup lang="ts">
import { placeName } from '#core/form/walk'

/** The list of commands, and every row of the form, by a few letters. */
const draft = useDraft()
const rehearsal = useRehearsal()
const open = ref(false)
const wanted = ref('')
const at = ref(0)
const input = useTemplateRef('input')
let before: Element | null = null
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
  {
    words: 'Fill the rest of the rehearsal',
    hint: '',
    run: () => {
      rehearsal.fillRest()
    },
  },
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
const shown = computed(() => {
  const words = wanted.value.toLowerCase().split(/\s+/).filter(Boolean)
  return [...commands.value, ...rows.value]
    .filter(c => words.every(w => `${c.words} ${c.hint}`.toLowerCase().includes(w)))
    .slice(0, MOST)
})
watch(wanted, () => {
  at.value = 0
})
function show() {
  before = document.activeElement
  open.value = true
  wanted.value = ''
  void nextTick(() => input.value?.focus())
}
function hide() {
  open.value = false
  if (before instanceof HTMLElement) before.focus()
}
function run(command: Command | undefined) {
  hide()
  command?.run()
}
function keys(event: KeyboardEvent) {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
    event.preventDefault()
    if (open.value) hide()
    else show()
  }
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
</script>

<template>
  <v-btn
    class="tool"
    aria-label="Ctrl K: list of commands"
    @click="show"
  >
    <kbd>Ctrl K</kbd>
  </v-btn>
  <div
    v-if="open"
    class="veil"
    @mousedown.self="hide"
  >
    <div
      class="commands sheet"
      role="dialog"
      aria-modal="true"
      aria-label="Commands"
      @keydown.esc.stop="hide"
    >
      <v-text-field
        ref="input"
        v-model="wanted"
        role="combobox"
        aria-label="Command or row"
        aria-expanded="true"
        aria-controls="command-list"
        :aria-activedescendant="shown[at] ? `command-${at}` : undefined"
        placeholder="A command, or a row by number, label or code"
        @keydown.down.prevent="at = Math.min(shown.length - 1, at + 1)"
        @keydown.up.prevent="at = Math.max(0, at - 1)"
        @keydown.enter.prevent="run(shown[at])"
        @keydown.tab.prevent
      />
      <ul
        id="command-list"
        role="listbox"
        aria-label="Commands and rows"
      >
        <li
          v-for="(c, i) in shown"
          :id="`command-${i}`"
          :key="i"
          role="option"
          :aria-selected="i === at"
          @mousedown.prevent="run(c)"
        >
          <span>{{ c.words }}</span><code class="quiet">{{ c.hint }}</code>
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.tool {
  min-height: 28px;
  padding: 1px 6px;
  font-size: 13px;
}
.veil {
  position: fixed;
  inset: 0;
  background: rgb(0 0 0 / 25%);
  z-index: 50;
  display: grid;
  justify-items: center;
  align-items: start;
  padding-top: 90px;
}
.commands {
  width: min(560px, 92vw);
  padding: 12px;
  display: grid;
  gap: 8px;
  box-shadow: 0 10px 40px rgb(0 0 0 / 30%);
}
li {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 5px 10px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--verdigris-wash);
}
</style>
