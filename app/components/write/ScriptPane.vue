<script setup lang="ts">
import { newItem, newSection, type LineKind } from '#core/form/create'
import { threadsOf } from '#core/form/threads'
import { locate, type Edit } from '#core/form/edits'
import type { Address, Place } from '#core/form/walk'

/** The script: the form as a dense, numbered list in which lines are typed, opened in place, moved and threaded together. */
const draft = useDraft()
const findings = useFindings()
const open = ref<Address | null>(null)
/** Where the next line is being typed: below this row; `end` when the form is empty. */
const typing = ref<Address | 'end' | null>(null)
const lineKind = ref<LineKind>('text')
const settings = ref(false)
const list = useTemplateRef('list')
const LANES = 4

const threads = computed(() => threadsOf(draft.places, LANES))
const orderOf = computed(() => new Map(draft.places.map(p => [p.address, p.order] as const)))
interface Strand { lane: number, part: 'gate' | 'end' | 'pass', above: boolean, below: boolean, lit: boolean }
/** By row: the pieces of thread that run through it. */
const strands = computed(() => {
  const byRow = new Map<Address, Strand[]>()
  for (const thread of threads.value) {
    const stops = [thread.from, ...thread.to]
    const orders = stops.map(a => orderOf.value.get(a) ?? 0)
    const [first, last] = [Math.min(...orders), Math.max(...orders)]
    const lit = draft.selected !== null && stops.includes(draft.selected)
    for (const p of draft.places.slice(first, last + 1)) {
      const part = p.address === thread.from ? 'gate' : thread.to.includes(p.address) ? 'end' : 'pass'
      byRow.set(p.address, [...byRow.get(p.address) ?? [], { lane: thread.lane, part, above: p.order > first, below: p.order < last, lit }])
    }
  }
  return byRow
})

const placeAt = (address: Address | null) => draft.places.find(p => p.address === address) ?? null
function select(address: Address | null, focus = true) {
  draft.selected = address
  if (focus && address) void nextTick(() => list.value?.querySelector<HTMLElement>(`[data-address="${CSS.escape(address)}"]`)?.focus({ preventScroll: false }))
}
function toggle(address: Address) {
  select(address, false)
  open.value = open.value === address ? null : address
  if (!open.value) select(address)
}

/** Where a line typed below a row goes: into a section or open group as its first, else right behind the row. */
function spotBelow(place: Place): { into: string, at: number } {
  if (place.kind === 'section' || place.kind === 'group') return { into: place.address, at: 0 }
  const found = locate(draft.form ?? { tobbin: 1, code: 'x', title: '', sections: [] }, place.address)
  return { into: found.container, at: found.index + 1 }
}
function add(lines: string[]) {
  const form = draft.form
  if (!form) return
  const below = typing.value === 'end' ? null : placeAt(typing.value)
  const edits: Edit[] = []
  const codes: string[] = []
  if (lineKind.value === 'section' || !below) {
    const at = below ? below.section + 1 : form.sections.length
    lines.forEach((line, i) => edits.push({ do: 'insert', into: 'sections', at: at + i, node: newSection(form, line) }))
  }
  else {
    const spot = spotBelow(below)
    const kind = lineKind.value
    lines.forEach((line, i) => {
      const node = newItem(form, kind, line, codes)
      codes.push(node.code)
      edits.push({ do: 'insert', into: spot.into, at: spot.at + i, node })
    })
  }
  if (!draft.edit(edits)) return
  const last = edits[edits.length - 1]
  if (last?.do !== 'insert') return
  const address: Address = `${lineKind.value === 'section' || !below ? 'section' : 'item'}/${last.node.code}`
  draft.selected = address
  if (lineKind.value === 'choice') openAfterAdd(address)
  else typing.value = address
  if (lineKind.value === 'section' || lineKind.value === 'group') lineKind.value = 'text'
}
/** A choice is nothing without its options: its row opens, ready for them. */
function openAfterAdd(address: Address) {
  typing.value = null
  open.value = address
  void nextTick(() => list.value?.querySelector<HTMLInputElement>('[aria-label="New choice"]')?.focus())
}
function close() {
  typing.value = null
  if (draft.selected) select(draft.selected)
}

function moveBy(place: Place, by: 1 | -1) {
  const form = draft.form
  if (!form) return
  const found = locate(form, place.address)
  const siblings = place.kind === 'section' ? form.sections : draft.places.filter(p => p.kind !== 'section' && p.section === place.section && p.groups.length === place.groups.length && p.groups.at(-1)?.address === place.groups.at(-1)?.address)
  const to = found.index + by
  if (to >= 0 && to < siblings.length) draft.edit([{ do: 'move', what: place.address, into: found.container, at: to }])
  else if (place.kind !== 'section') moveOut(place, by)
  select(place.address)
}
/** Past the end of its group or section, a row goes on into what lies beyond. */
function moveOut(place: Place, by: 1 | -1) {
  const form = draft.form
  if (!form) return
  const group = place.groups.at(-1)
  if (group) {
    const outer = locate(form, group.address)
    draft.edit([{ do: 'move', what: place.address, into: outer.container, at: outer.index + (by === 1 ? 1 : 0) }])
    return
  }
  const next = form.sections[place.section + by]
  const address = draft.places.find(p => p.kind === 'section' && p.section === place.section + by)?.address
  if (next && address) draft.edit([{ do: 'move', what: place.address, into: address, at: by === 1 ? 0 : next.items.length }])
}
function indent(place: Place): boolean {
  const form = draft.form
  if (!form || place.kind === 'section') return false
  const found = locate(form, place.address)
  const before = draft.places.filter(p => p.order < place.order && p.section === place.section && p.groups.length === place.groups.length).at(-1)
  if (before?.kind !== 'group' || locate(form, before.address).index !== found.index - 1) return false
  return draft.edit([{ do: 'move', what: place.address, into: before.address, at: before.node.items.length }])
}
function outdent(place: Place): boolean {
  const group = place.groups.at(-1)
  if (!group || !draft.form) return false
  const outer = locate(draft.form, group.address)
  return draft.edit([{ do: 'move', what: place.address, into: outer.container, at: outer.index + 1 }])
}
function remove(place: Place) {
  const at = draft.places.findIndex(p => p.address === place.address)
  const next = draft.places.slice(0, at).at(-1) ?? draft.places[at + 1]
  if (!draft.edit([{ do: 'remove', what: place.address }])) return
  open.value = null
  select(next?.address ?? null)
}

function keys(event: KeyboardEvent) {
  if (event.target instanceof HTMLElement && event.target.closest('.editor, .new-line, .settings')) return
  const place = placeAt(draft.selected)
  if (event.ctrlKey || event.metaKey) return
  const step = (by: number) => {
    const i = place ? draft.places.indexOf(place) + by : 0
    const next = draft.places[Math.max(0, Math.min(draft.places.length - 1, i))]
    if (next) select(next.address)
  }
  if (!place) {
    if (event.key === 'ArrowDown') step(0)
    else if (event.key === 'Enter') typing.value = draft.places.at(-1)?.address ?? 'end'
    else return
  }
  else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) moveBy(place, event.key === 'ArrowUp' ? -1 : 1)
  else if (event.altKey) return
  else if (event.key === 'ArrowDown') step(1)
  else if (event.key === 'ArrowUp') step(-1)
  else if (event.key === 'Enter') typing.value = place.address
  else if (event.key === ' ' || event.key === 'F2') toggle(place.address)
  else if (event.key === 'Escape') open.value = null
  else if (event.key === 'Delete') remove(place)
  else if (event.key === 'Tab') {
    if (!(event.shiftKey ? outdent(place) : indent(place))) return
    select(place.address)
  }
  else return
  event.preventDefault()
}

/** A row dropped on another goes right below it; on a section or group, to its beginning. */
function drop(dragged: Address, onto: Address) {
  const [place, target] = [placeAt(dragged), placeAt(onto)]
  if (!place || !target || dragged === onto || !draft.form) return
  if (place.kind === 'section') {
    const at = target.section < place.section ? target.section + (target.kind === 'section' ? 0 : 1) : target.section
    draft.edit([{ do: 'move', what: dragged, into: 'sections', at }])
    return
  }
  const spot = spotBelow(target)
  const own = locate(draft.form, dragged)
  const at = own.container === spot.into && own.index < spot.at ? spot.at - 1 : spot.at
  draft.edit([{ do: 'move', what: dragged, into: spot.into, at }])
  select(dragged)
}

const sections = computed(() => draft.places.filter(p => p.kind === 'section').length)
</script>

<template>
  <section class="script" aria-label="Script">
    <div class="pane-bar">
      <strong>Script</strong>
      <span class="quiet small">{{ sections }} {{ sections === 1 ? 'section' : 'sections' }}</span>
      <button class="text-button" :aria-expanded="settings" @click="settings = !settings">Form settings</button>
      <span class="spread" />
      <span class="small quiet keys"><kbd>↑↓</kbd> go <kbd>Space</kbd> open <kbd>Alt ↑↓</kbd> move</span>
      <button class="text-button" @click="typing = draft.selected ?? draft.places.at(-1)?.address ?? 'end'">Add <kbd>Enter</kbd></button>
    </div>
    <p v-if="draft.refused" class="refused fault small" role="alert">{{ draft.refused }}</p>
    <div ref="list" class="rows" @keydown="keys">
      <FormSettings v-if="settings" />
      <div role="list" aria-label="Lines of the script">
        <div v-for="p in draft.places" :key="p.address" role="listitem">
          <ScriptRow :place="p" :selected="draft.selected === p.address" :open="open === p.address" :strands="strands.get(p.address) ?? []" :findings="findings.at(p.address)" @select="select(p.address, false)" @toggle="toggle(p.address)" @add="typing = p.address" @remove="remove(p)" @drop-on="drop($event, p.address)" />
          <RowEditor v-if="open === p.address" :place="p" @renamed="open = $event; draft.selected = $event" @keydown.esc="toggle(p.address)" />
          <NewLine v-if="typing === p.address" :key="`new-${p.address}`" :kind="lineKind" @kind="lineKind = $event" @add="add" @close="close" />
        </div>
      </div>
      <NewLine v-if="typing === 'end'" kind="section" only-sections @kind="lineKind = $event" @add="add" @close="close" />
      <div v-if="draft.places.length <= 1 && !typing" class="teach">
        <h2>Begin to type</h2>
        <p>Select the section above and press <kbd>Enter</kbd>. Every line is a question; <kbd>Enter</kbd> goes on to the next, <kbd>/</kbd> chooses its type, a pasted block adds one question a line.</p>
        <button class="action" @click="typing = draft.places.at(-1)?.address ?? 'end'">Type the first question</button>
      </div>
    </div>
  </section>
</template>

<style scoped>
.script { display: flex; flex-direction: column; min-height: 0; border-right: 1px solid var(--line); background: var(--paper); }
.pane-bar { display: flex; align-items: center; gap: 12px; height: 40px; padding: 0 16px; border-bottom: 1px solid var(--line); background: var(--linen); flex: none; }
.rows { position: relative; overflow-y: auto; flex: 1; padding-bottom: 120px; }
.refused { padding: 6px 16px; background: var(--madder-wash); }
.teach { padding: 40px 104px; display: grid; gap: 12px; justify-items: start; max-width: 46ch; }
@media (max-width: 1100px) { .keys { display: none; } }
</style>
