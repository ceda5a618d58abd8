<script setup lang="ts">
import { FUNCTIONS } from '#core/expressions/functions'
import type { ValueType } from '#core/expressions/types'
import { nodeText, type Place } from '#core/form/walk'

/** An expression as text: completes questions, choices and functions, and says errors at their place with the nearest right spelling. */
const props = defineProps<{
  text: string
  label: string
  place: Place
  wanted: ValueType | null | undefined
  row?: string
  placeholder?: string
}>()
const emit = defineEmits<{ write: [text: string] }>()
const draft = useDraft()
const area = useTemplateRef('area')
const caret = ref(0)
const active = ref(0)
const isOpen = ref(false)
const id = useId()
const MOST = 8

const reading = computed(() => {
  if (props.text.trim() === '' || !draft.names) return null
  if (props.wanted === undefined) return draft.names.read(props.text, props.place)
  return draft.names.read(props.text, props.place, props.wanted, props.row ?? null)
})
const problem = computed(() => {
  const { syntax, problems } = reading.value ?? {}
  return syntax
    ? {
        from: syntax.from,
        to: syntax.to,
        sentence: syntax.message,
        instead: syntax.instead?.includes('…') ? null : (syntax.instead ?? null),
      }
    : (problems?.[0] ?? null)
})

interface Suggestion {
  text: string
  words: string
}
/** The word that is being typed, and whether it is a text (a choice's code) or a name. */
const typing = computed(() => {
  const before = props.text.slice(0, caret.value)
  const quoted = /([a-z_][a-z0-9_]*)\s*(?:=|!=|in\s*[[(](?:\s*"[^"]*"\s*,)*|,)\s*"([^"]*)$/i.exec(before)
  if (quoted) return { kind: 'code' as const, of: quoted[1] ?? '', word: quoted[2] ?? '' }
  const word =
    /[a-z_][a-z0-9_ ]*$/i
      .exec(before)?.[0]
      .replace(/^.*\b(?:and|or|not|in|if|then|else|between|satisfies)\s+/i, '') ?? ''
  return { kind: 'name' as const, of: '', word: word.trimStart() }
})
const suggestions = computed((): Suggestion[] => {
  const { kind, of, word } = typing.value
  const wanted = word.toLowerCase()
  const fits = (...texts: string[]) => texts.some(t => t.toLowerCase().includes(wanted))
  if (!draft.names) return []
  if (kind === 'code') {
    const type = draft.names.typeOf(of)
    const single = type.kind === 'list' ? type.of : type
    const choices = single.kind === 'code' ? [...single.choices] : []
    return choices
      .filter(([code, label]) => fits(code, label) && code !== word)
      .slice(0, MOST)
      .map(([code, label]) => ({ text: code, words: label }))
  }
  if (wanted.length < 1) return []
  const names = [...draft.names.at(props.place).names()]
    .filter(n => n !== word)
    .map(n => {
      const found = draft.places.find(p => p.code === n)
      return { text: n, words: found ? nodeText(found.node).text : '' }
    })
    .filter(s => fits(s.text, s.words))
  const functions = [...FUNCTIONS]
    .filter(([name]) => fits(name))
    .map(([name, f]) => ({ text: `${name}(`, words: f.parameters.map(p => p.name).join(', ') }))
  return [...names, ...functions]
    .toSorted((a, b) => Number(b.text.startsWith(wanted)) - Number(a.text.startsWith(wanted)))
    .slice(0, MOST)
})
function take(s: Suggestion | undefined) {
  if (!s) return
  const from = caret.value - typing.value.word.length
  replace(from, caret.value, s.text)
}
function replace(from: number, to: number, by: string) {
  emit('write', props.text.slice(0, from) + by + props.text.slice(to))
  isOpen.value = false
  void nextTick(() => {
    area.value?.focus()
    area.value?.setSelectionRange(from + by.length, from + by.length)
    caret.value = from + by.length
  })
}
function write() {
  caret.value = area.value?.selectionStart ?? 0
  isOpen.value = true
  active.value = 0
  emit('write', area.value?.value ?? '')
}
function keys(event: KeyboardEvent) {
  if (!isOpen.value || suggestions.value.length === 0) return
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp')
    active.value = Math.max(
      0,
      Math.min(suggestions.value.length - 1, active.value + (event.key === 'ArrowDown' ? 1 : -1)),
    )
  else if (event.key === 'Tab' || event.key === 'Enter') take(suggestions.value[active.value])
  else if (event.key === 'Escape') isOpen.value = false
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <div class="expression-input">
    <v-textarea
      ref="area"
      class="code"
      rows="2"
      :model-value="text"
      :aria-label="label"
      :placeholder="placeholder"
      spellcheck="false"
      role="combobox"
      aria-autocomplete="list"
      :aria-expanded="isOpen && suggestions.length > 0"
      :aria-controls="id"
      :aria-activedescendant="isOpen && suggestions[active] ? `${id}-${active}` : undefined"
      @input="write"
      @keydown="keys"
      @click="caret = area?.selectionStart ?? 0"
      @blur="isOpen = false"
    />
    <ul
      v-show="isOpen && suggestions.length > 0"
      :id="id"
      role="listbox"
      aria-label="Suggestions"
    >
      <li
        v-for="(s, i) in suggestions"
        :id="`${id}-${i}`"
        :key="s.text"
        role="option"
        :aria-selected="i === active"
        @mousedown.prevent="take(s)"
      >
        <code>{{ s.text }}</code> <span class="quiet">{{ s.words }}</span>
      </li>
    </ul>
    <p
      v-if="problem"
      class="small fault"
      role="alert"
    >
      ✕ Character {{ problem.from + 1 }}: {{ problem.sentence }}
      <v-btn
        variant="text"
        v-if="problem.instead"
        @click="replace(problem.from, problem.to, problem.instead)"
      >
        Write {{ problem.instead }}
      </v-btn>
    </p>
  </div>
</template>

<style scoped>
.expression-input {
  position: relative;
  display: grid;
  gap: 2px;
  min-width: 0;
}
textarea {
  field-sizing: content;
  min-height: 30px;
}
ul {
  position: absolute;
  z-index: 30;
  top: 100%;
  left: 0;
  min-width: 300px;
  background: var(--paper);
  border: 1px solid var(--control-line);
  box-shadow: 0 6px 18px rgb(0 0 0 / 16%);
  font-size: 13px;
}
li {
  padding: 4px 10px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--verdigris-wash);
}
</style>
