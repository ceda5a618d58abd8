<script setup lang="ts">
import type { Pointable } from '#core/form/names'

/** Points at a question by number, label or code: typed, then chosen from what fits. */
const props = defineProps<{ value: string; questions: Pointable[] }>()
const emit = defineEmits<{ choose: [code: string] }>()
const typed = ref<string | null>(null)
const open = ref(false)
const active = ref(0)
const id = useId()
const MOST = 40
const chosen = computed(() => props.questions.find(q => q.code === props.value))
const nameOf = (q: Pointable) => `${q.number} ${q.label}`
const shown = computed(() => {
  const words = (typed.value ?? '').toLowerCase().split(/\s+/).filter(Boolean)
  return props.questions
    .filter(q => words.every(w => `${q.number} ${q.label} ${q.code}`.toLowerCase().includes(w)))
    .slice(0, MOST)
})
function choose(q: Pointable | undefined) {
  if (!q) return
  typed.value = null
  open.value = false
  if (q.code !== props.value) emit('choose', q.code)
}
function keys(event: KeyboardEvent) {
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    active.value = open.value
      ? Math.max(0, Math.min(shown.value.length - 1, active.value + (event.key === 'ArrowDown' ? 1 : -1)))
      : 0
    open.value = true
  } else if (event.key === 'Enter' && open.value) choose(shown.value[active.value])
  else if (event.key === 'Escape' && open.value) open.value = false
  else return
  event.preventDefault()
  event.stopPropagation()
}
function type(event: Event) {
  typed.value = inputText(event)
  open.value = true
  active.value = 0
}
function leave() {
  open.value = false
  typed.value = null
}
function begin() {
  typed.value = ''
  open.value = true
  active.value = 0
}
</script>

<template>
  <span class="picker">
    <v-text-field
      role="combobox"
      aria-label="Question"
      aria-autocomplete="list"
      autocomplete="off"
      :aria-expanded="open"
      :aria-controls="id"
      :aria-activedescendant="open && shown[active] ? `${id}-${active}` : undefined"
      :model-value="typed ?? (chosen ? nameOf(chosen) : value)"
      placeholder="which question?"
      @input="type"
      @keydown="keys"
      @focus="begin"
      @blur="leave"
    />
    <ul
      v-show="open"
      :id="id"
      role="listbox"
      aria-label="Questions"
    >
      <li
        v-for="(q, i) in shown"
        :id="`${id}-${i}`"
        :key="q.code"
        role="option"
        :aria-selected="i === active"
        @mousedown.prevent="choose(q)"
      >
        <span class="num quiet">{{ q.number }}</span> {{ q.label }} <code>{{ q.code }}</code>
      </li>
      <li
        v-if="shown.length === 0"
        role="option"
        aria-disabled="true"
        aria-selected="false"
        class="quiet"
      >
        no question like this before here
      </li>
    </ul>
  </span>
</template>

<style scoped>
.picker {
  position: relative;
  display: inline-block;
}
.picker .field {
  width: 240px;
  max-width: 100%;
}
ul {
  position: absolute;
  z-index: 30;
  top: 100%;
  left: 0;
  min-width: 320px;
  max-height: 240px;
  overflow-y: auto;
  background: var(--paper);
  border: 1px solid var(--control-line);
  box-shadow: 0 6px 18px rgb(0 0 0 / 16%);
  font-size: 13px;
}
li {
  padding: 5px 10px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--verdigris-wash);
}
</style>
