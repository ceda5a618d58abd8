<script setup lang="ts">
import { TYPES } from '#core/form/types'
import type { LineKind } from '#core/form/create'

/** The line where the next question is typed. `/` goes to the choice of type, Enter adds and goes on, Esc ends. */
const props = defineProps<{ kind: LineKind; onlySections?: boolean }>()
const emit = defineEmits<{
  add: [lines: string[]]
  kind: [kind: LineKind]
  outline: [text: string]
  close: []
}>()
const text = ref('')
const input = useTemplateRef('input')
const choice = useTemplateRef('choice')
onMounted(() => input.value?.focus())

const KINDS: { value: LineKind; title: string }[] = [
  ...Object.entries(TYPES).map(([key, entry]) => ({ value: key as LineKind, title: entry.words })),
  { value: 'note', title: 'note' },
  { value: 'group', title: 'group' },
  { value: 'section', title: 'section' },
]
function commit() {
  if (!text.value.trim()) return emit('close')
  emit('add', [text.value.trim()])
  text.value = ''
}
const isUnfolded = ref(false)
/** `/` at the beginning of a word offers the types; as part of one, such as “km/h”, it is typed. */
function slash(event: KeyboardEvent) {
  const field = event.target
  if (event.key !== '/' || !(field instanceof HTMLInputElement)) return
  const before = field.value.slice(0, field.selectionStart ?? 0)
  if (!/(?:^|\s)$/.test(before)) return
  event.preventDefault()
  choice.value?.focus()
  isUnfolded.value = true
}
/** What is typed in the field of types takes the place of the type that stands there. */
function selectAll({ target }: FocusEvent) {
  if (target instanceof HTMLInputElement) target.select()
}
/** Once the types are folded again, on with the line. */
function setUnfolded(is: boolean) {
  isUnfolded.value = is
  if (!is) void nextTick(() => input.value?.focus())
}
/** Without one the line has its `/` after all. */
function fold(event: KeyboardEvent) {
  event.stopPropagation()
  isUnfolded.value = false
  const { value } = text
  text.value = value === '' ? value : `${value}/`
  input.value?.focus()
}
/** No key typed here is the script's. */
function keys(event: KeyboardEvent) {
  if (event.key !== 'Escape') return
  text.value = ''
  emit('close')
}
/** Plain lines become questions at once; an outline or a table is looked at first. */
function paste(event: ClipboardEvent) {
  const pasted = event.clipboardData?.getData('text/plain') ?? ''
  const lines = pasted
    .split(/\r?\n/)
    .map(l => l.trim())
    .filter(Boolean)
  if (lines.length < 2) return
  event.preventDefault()
  if (lines.some(l => l.includes('\t') || /^(?:\d+[.)]|[-*•#[(o☐]\s?)/.test(l))) emit('outline', pasted)
  else emit('add', lines)
}
// Taking the line away to put it below the new row makes the browser say that it lost the focus; that is no leaving.
let isGone = false
onBeforeUnmount(() => {
  isGone = true
})
function leave(event: FocusEvent) {
  if (isGone) return
  const to = event.relatedTarget
  const isInside =
    to instanceof Node && event.currentTarget instanceof Node && event.currentTarget.contains(to)
  // The choices of a type unfold elsewhere on the page.
  if (isInside || (to instanceof Element && to.closest('.v-overlay-container'))) return
  if (text.value.trim()) emit('add', [text.value.trim()])
  emit('close')
}
</script>

<template>
  <div
    class="new-line"
    @focusout="leave"
    @keydown.stop="keys"
  >
    <v-text-field
      ref="input"
      v-model="text"
      maxlength="500"
      :placeholder="
        props.kind === 'section' ? 'Title of the new section' : 'Type a question, Enter for the next'
      "
      aria-label="New line"
      @keydown.enter.prevent="commit"
      @keydown="slash"
      @paste="paste"
    />
    <v-autocomplete
      ref="choice"
      :model-value="props.kind"
      aria-label="Type of the new line"
      :items="KINDS"
      :menu="isUnfolded"
      :custom-filter="hasWords"
      no-data-text="no type like this"
      @focus="selectAll"
      @update:menu="setUnfolded"
      @update:model-value="emit('kind', $event)"
      @keydown.enter.prevent="setUnfolded(false)"
      @keydown.esc.capture="fold"
    />
    <span class="small quiet"><kbd>/</kbd> type</span>
  </div>
</template>

<style scoped>
.new-line {
  display: grid;
  grid-template-columns: 1fr 150px auto;
  gap: 8px;
  padding: 4px 16px 4px 104px;
  background: var(--verdigris-wash);
  align-items: center;
}
</style>
