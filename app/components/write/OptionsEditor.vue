<script setup lang="ts">
import type { Option, QuestionOf } from '#core/form/definition'
import { codeFromLabel, freeCode } from '#core/form/codes'
import type { Address } from '#core/form/walk'

const props = defineProps<{ question: QuestionOf<'choice'>, address: Address }>()
const draft = useDraft()
const options = computed(() => props.question.options ?? [])
const line = ref('')

const put = (next: Option[], merge: string | null = null) => draft.edit([{ do: 'change', what: props.address, set: { options: next } }], merge)
/** Lines become options; a line `code | Label` brings its own code. */
function add(lines: readonly string[]) {
  const next = [...options.value]
  for (const text of lines.map(l => l.replace(/^[\s•*–-]+|\s+$/g, '')).filter(Boolean)) {
    const [own, label] = text.includes('|') ? text.split('|', 2).map(t => t.trim()) : [null, text]
    next.push({ code: freeCode(own || codeFromLabel(label ?? text, 'choice'), new Set(next.map(o => o.code))), label: label ?? text })
  }
  if (next.length > options.value.length) put(next)
}
function commit() {
  add([line.value])
  line.value = ''
}
function paste(event: ClipboardEvent) {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (!/\r?\n/.test(text.trim())) return
  event.preventDefault()
  add(text.split(/\r?\n/))
}
const change = (i: number, part: Partial<Option>) => put(options.value.map((o, j) => j === i ? { ...o, ...part } : o), `${props.address}:option:${i}:${Object.keys(part)[0]}`)
function move(i: number, by: number) {
  const to = i + by
  const moved = options.value[i]
  if (moved && to >= 0 && to < options.value.length) put(options.value.toSpliced(i, 1).toSpliced(to, 0, moved))
}
const valueOf = (event: Event) => event.target instanceof HTMLInputElement ? event.target.value : ''
</script>

<template>
  <div class="options">
    <p v-if="question.list" class="small quiet">The choices come from the list <code>{{ question.list }}</code>.</p>
    <template v-else>
      <div v-for="(o, i) in options" :key="i" class="option">
        <input class="field" :value="o.label" :aria-label="`Choice ${i + 1}: label`" @input="change(i, { label: valueOf($event) })" @keydown.alt.up.prevent="move(i, -1)" @keydown.alt.down.prevent="move(i, 1)">
        <input class="field code" :value="o.code" :aria-label="`Choice ${i + 1}: code`" maxlength="60" @change="valueOf($event) && change(i, { code: valueOf($event) })">
        <button class="text-button" :aria-label="`Remove the choice ${o.label}`" @click="put(options.toSpliced(i, 1))">Remove</button>
      </div>
      <input v-model="line" class="field" placeholder="Type a choice, Enter for the next; or paste lines" aria-label="New choice" @keydown.enter.prevent="commit" @paste="paste" @blur="line.trim() && commit()">
    </template>
  </div>
</template>

<style scoped>
.options { display: grid; gap: 4px; }
.option { display: grid; grid-template-columns: 1fr 150px auto; gap: 6px; }
</style>
