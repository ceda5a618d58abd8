<script setup lang="ts">
import { threadsOf } from '#core/form/threads'
import type { LineKind } from '#core/form/create'
import type { Address, Place } from '#core/form/walk'
import type { Strand } from './strand'

/** The script: the form as a dense, numbered list in which lines are typed, opened in place, moved and threaded together. */
const draft = useDraft()
const findings = useFindings()
const script = useScript()
const open = ref<Address | null>(null)
/** Where the next line is being typed: below this row; `end` when the form is empty. */
const typing = ref<Address | 'end' | null>(null)
const lineKind = ref<LineKind>('text')
const panel = ref<'settings' | 'find' | 'shelf' | 'move' | 'keys' | null>(null)
const outline = ref<string | null>(null)
const list = useTemplateRef('list')
const LANES = 4
const NO_STRANDS: Strand[] = []

const threads = computed(() => threadsOf(draft.places, LANES))
/** By row: the pieces of thread that run through it. What is as it was stays the same object. */
const strands = computed<ReadonlyMap<Address, Strand[]>>(before => {
  const orderOf = new Map(draft.places.map(p => [p.address, p.order] as const))
  const byRow = new Map<Address, Strand[]>()
  for (const thread of threads.value) {
    const stops = [thread.from, ...thread.to]
    const orders = stops.map(a => orderOf.get(a) ?? 0)
    const [first, last] = [Math.min(...orders), Math.max(...orders)]
    const lit = draft.selected !== null && stops.includes(draft.selected)
    const ends = new Set(thread.to)
    for (const p of draft.places.slice(first, last + 1)) {
      const part = p.address === thread.from ? 'gate' : ends.has(p.address) ? 'end' : 'pass'
      const row = byRow.get(p.address) ?? []
      row.push({ lane: thread.lane, part, above: p.order > first, below: p.order < last, lit })
      byRow.set(p.address, row)
    }
  }
  const same = (a: Strand[] | undefined, b: Strand[]) =>
    a !== undefined &&
    a.length === b.length &&
    a.every(
      (s, i) =>
        s.lane === b[i]?.lane &&
        s.part === b[i]?.part &&
        s.above === b[i]?.above &&
        s.below === b[i]?.below &&
        s.lit === b[i]?.lit,
    )
  return new Map(
    [...byRow].map(([address, row]) => [
      address,
      same(before?.get(address), row) ? (before?.get(address) ?? row) : row,
    ]),
  )
})

/** Of a long script only what is near the screen is drawn; the heights of the rest are remembered, or guessed. */
const WHOLE = 150
const GUESS = 34
const MARGIN = 300
const heights = new Map<Address, number>()
const measured = ref(0)
const top = ref(0)
const tall = ref(800)
/** Where each row begins, and behind them the end of the last. */
const begins = computed(() => {
  void measured.value
  const at = new Float64Array(draft.places.length + 1)
  draft.places.forEach((p, i) => {
    at[i + 1] = (at[i] ?? 0) + (heights.get(p.address) ?? GUESS)
  })
  return at
})
/** The row that a height falls into. */
function rowAt(height: number) {
  let [low, high] = [0, draft.places.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((begins.value[middle + 1] ?? Infinity) < height) low = middle + 1
    else high = middle
  }
  return low
}
const extent = computed(() => {
  const { length } = draft.places
  if (length <= WHOLE) return { from: 0, to: length, before: 0, after: 0 }
  const [from, to] = [rowAt(top.value - MARGIN), Math.min(length, rowAt(top.value + tall.value + MARGIN) + 1)]
  return {
    from,
    to,
    before: begins.value[from] ?? 0,
    after: (begins.value[length] ?? 0) - (begins.value[to] ?? 0),
  }
})
const rows = computed(() => draft.places.slice(extent.value.from, extent.value.to))
let scrolling = 0
function scrolled() {
  cancelAnimationFrame(scrolling)
  scrolling = requestAnimationFrame(() => {
    if (list.value) [top.value, tall.value] = [list.value.scrollTop, list.value.clientHeight]
  })
}
/** Heights are taken where the browser has them at hand, so that reading them never makes it lay out anew. */
let sizes: ResizeObserver | null = null
const observed = new Set<Element>()
function observe() {
  if (!sizes || draft.places.length <= WHOLE || !list.value) return
  const lines = new Set(list.value.querySelectorAll('.line'))
  for (const line of observed) {
    if (lines.has(line)) continue
    sizes.unobserve(line)
    observed.delete(line)
  }
  for (const line of lines) {
    if (observed.has(line)) continue
    sizes.observe(line)
    observed.add(line)
  }
}
watch(rows, () => void nextTick(observe), { flush: 'post' })
onMounted(() => {
  sizes = new ResizeObserver(entries => {
    let changed = false
    for (const { target, contentRect } of entries) {
      const address = target.querySelector('[data-address]')?.getAttribute('data-address')
      const place = draft.places.find(p => p.address === address)
      if (!place || contentRect.height === 0 || heights.get(place.address) === contentRect.height) continue
      heights.set(place.address, contentRect.height)
      changed = true
    }
    if (changed) measured.value += 1
  })
  observe()
})
onBeforeUnmount(() => sizes?.disconnect())
/** Brings a row onto the screen, drawn or not yet. */
function reveal(address: Address) {
  const line = list.value?.querySelector(`[data-address="${CSS.escape(address)}"]`)
  if (line || !list.value) return line?.scrollIntoView({ block: 'nearest' })
  const index = draft.places.findIndex(p => p.address === address)
  if (index < 0) return
  list.value.scrollTop = Math.max(0, (begins.value[index] ?? 0) - tall.value / 3)
  top.value = list.value.scrollTop
}
const selection = computed(() => new Set(draft.selection))

function focus(address: Address | null) {
  if (!address) return
  void nextTick(() => {
    reveal(address)
    void nextTick(() =>
      list.value?.querySelector<HTMLElement>(`[data-address="${CSS.escape(address)}"]`)?.focus(),
    )
  })
}
function select(address: Address | null, how: 'only' | 'stretch' | 'toggle' = 'only') {
  draft.select(address, how)
  focus(address)
}
const pressing = ref(false)
function pick(address: Address, event: MouseEvent | FocusEvent) {
  const keys = event instanceof MouseEvent ? event : null
  // A press brings the focus first; what it selects is the click's to say.
  if (!keys && (pressing.value || draft.selection.includes(address))) return
  draft.select(address, keys?.shiftKey ? 'stretch' : keys?.ctrlKey || keys?.metaKey ? 'toggle' : 'only')
}
function toggle(address: Address) {
  draft.select(address)
  open.value = open.value === address ? null : address
  if (!open.value) focus(address)
}
// Whoever points at a place from elsewhere (a thread, a finding, the rulebook) finds it on screen.
watch(
  () => draft.selected,
  address => {
    if (address) void nextTick(() => reveal(address))
  },
)

function add(lines: string[]) {
  const address = script.addLines(
    lines,
    lineKind.value,
    typing.value === 'end' ? null : script.placeAt(typing.value),
  )
  if (!address) return
  draft.select(address)
  if (lineKind.value === 'choice' || lineKind.value === 'choices') {
    // A choice is nothing without its options: its row opens, ready for them.
    typing.value = null
    open.value = address
    void nextTick(() => list.value?.querySelector<HTMLInputElement>('[aria-label="New choice"]')?.focus())
  } else typing.value = address
  if (lineKind.value === 'section' || lineKind.value === 'group') lineKind.value = 'text'
}
function close() {
  typing.value = null
  focus(draft.selected)
}
const isElsewhere = (event: Event) =>
  event.target instanceof HTMLElement && event.target.closest('.editor, .new-line, .panel') !== null

/** By key, with Alt (`alt+`), Control (`ctrl+`) and Shift (`shift+`) before it: what it does with the selected row. */
const KEYS: Record<string, (place: Place) => void> = {
  ArrowDown: p => step(p, 1),
  ArrowUp: p => step(p, -1),
  'shift+ArrowDown': p => step(p, 1, true),
  'shift+ArrowUp': p => step(p, -1, true),
  Home: () => select(draft.places[0]?.address ?? null),
  End: () => select(draft.places.at(-1)?.address ?? null),
  Enter: p => {
    typing.value = p.address
  },
  ' ': p => toggle(p.address),
  F2: p => toggle(p.address),
  Escape: p => {
    open.value = null
    panel.value = null
    select(p.address)
  },
  Delete: () => after(script.remove),
  'ctrl+d': () => after(script.duplicate),
  'ctrl+g': () => after(script.group),
  'ctrl+a': () => script.selectAll(draft.places.map(p => p.address)),
  'alt+ArrowUp': () => after(() => script.moveBy(-1)),
  'alt+ArrowDown': () => after(() => script.moveBy(1)),
  'alt+m': () => {
    panel.value = 'move'
  },
  '?': () => {
    panel.value = 'keys'
  },
}
function after(act: () => void) {
  act()
  focus(draft.selected)
}
function step(place: Place, by: number, stretch = false) {
  const next = draft.places[Math.max(0, Math.min(draft.places.length - 1, draft.places.indexOf(place) + by))]
  if (next) select(next.address, stretch ? 'stretch' : 'only')
}
function keys(event: KeyboardEvent) {
  if (isElsewhere(event)) return
  const place = script.placeAt(draft.selected)
  if (!place) {
    if (event.key === 'ArrowDown') select(draft.places[0]?.address ?? null)
    else if (event.key === 'Enter') typing.value = draft.places.at(-1)?.address ?? 'end'
    else return
  } else if (event.key === 'Tab') {
    if (!(event.shiftKey ? script.outdent() : script.indent())) return
    focus(draft.selected)
  } else {
    const name = `${event.altKey ? 'alt+' : ''}${event.ctrlKey || event.metaKey ? 'ctrl+' : ''}${event.shiftKey && event.key.length > 1 ? 'shift+' : ''}${event.key}`
    const act = KEYS[name]
    if (!act) return
    act(place)
  }
  event.preventDefault()
}
function copy(event: ClipboardEvent, cut: boolean) {
  if (isElsewhere(event)) return
  const text = script.copy()
  if (!text) return
  event.preventDefault()
  event.clipboardData?.setData('text/plain', text)
  if (cut) after(script.remove)
}
function paste(event: ClipboardEvent) {
  if (isElsewhere(event)) return
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (text.trim() === '') return
  event.preventDefault()
  if (!script.paste(text)) outline.value = text
}
/** A row dropped on another goes right below it; on a section or group, to its beginning. What is selected with it goes along. */
function drop(dragged: Address, onto: Address) {
  const target = script.placeAt(onto)
  const place = script.placeAt(dragged)
  if (!place || !target || dragged === onto || !draft.form) return
  const all = draft.selection.includes(dragged) ? [...draft.selection] : [dragged]
  if (place.kind === 'section')
    script.moveTo(
      {
        into: 'sections',
        at: target.section + 1 - (target.section < place.section && target.kind === 'section' ? 1 : 0),
      },
      all,
    )
  else script.moveTo(script.spotBelow(target), all)
  focus(dragged)
}
function whole(event: KeyboardEvent) {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'f') {
    event.preventDefault()
    panel.value = 'find'
  }
}
onMounted(() => window.addEventListener('keydown', whole))
onBeforeUnmount(() => window.removeEventListener('keydown', whole))
const show = (p: typeof panel.value) => {
  panel.value = panel.value === p ? null : p
}
defineExpose({
  paste: (text: string) => {
    outline.value = text
  },
})
</script>

<template>
  <section
    class="script"
    aria-label="Script"
  >
    <div class="tools-bar">
      <button
        class="text-button"
        :aria-expanded="panel === 'settings'"
        @click="show('settings')"
      >
        Form settings
      </button>
      <button
        class="text-button"
        @click="outline = ''"
      >
        Paste an outline
      </button>
      <button
        class="text-button"
        :aria-expanded="panel === 'shelf'"
        @click="show('shelf')"
      >
        Shelf
      </button>
      <button
        class="text-button"
        :aria-expanded="panel === 'find'"
        @click="show('find')"
      >
        Find <kbd>Ctrl F</kbd>
      </button>
      <span class="spread" />
      <button
        class="text-button"
        aria-label="Keys of the script"
        @click="show('keys')"
      >
        <kbd>?</kbd> keys
      </button>
      <button
        class="text-button"
        @click="typing = draft.selected ?? draft.places.at(-1)?.address ?? 'end'"
      >
        Add <kbd>Enter</kbd>
      </button>
    </div>
    <p
      v-if="draft.refused"
      class="refused fault small"
      role="alert"
    >
      {{ draft.refused }}
    </p>
    <div
      v-if="script.notes.value.length > 0"
      class="refused risk small"
      role="status"
    >
      <p
        v-for="n in script.notes.value"
        :key="n"
      >
        {{ n }}
      </p>
      <button
        class="text-button"
        @click="script.notes.value = []"
      >
        Done
      </button>
    </div>
    <SelectionBar
      v-if="draft.selection.length > 1"
      @move="panel = 'move'"
    />
    <FormSettings
      v-if="panel === 'settings'"
      class="panel"
    />
    <FindBar
      v-if="panel === 'find'"
      class="panel"
      @close="panel = null"
      @go="select"
    />
    <ShelfPanel
      v-if="panel === 'shelf'"
      class="panel"
      @close="panel = null"
    />
    <MovePanel
      v-if="panel === 'move'"
      class="panel"
      @close="
        panel = null
        focus(draft.selected)
      "
    />
    <KeysPanel
      v-if="panel === 'keys'"
      class="panel"
      @close="
        panel = null
        focus(draft.selected)
      "
    />
    <OutlinePanel
      v-if="outline !== null"
      class="panel"
      :text="outline"
      @close="
        outline = null
        focus(draft.selected)
      "
    />
    <DeletePanel
      v-if="script.doomed.value"
      class="panel"
      @close="focus(draft.selected)"
    />
    <div
      ref="list"
      class="rows"
      @mousedown.capture="pressing = true"
      @click.capture="pressing = false"
      @scroll.passive="scrolled"
      @keydown="keys"
      @copy="copy($event, false)"
      @cut="copy($event, true)"
      @paste="paste"
    >
      <div
        role="list"
        aria-label="Lines of the script"
        :style="{ paddingTop: `${extent.before}px`, paddingBottom: `${extent.after}px` }"
      >
        <div
          v-for="p in rows"
          :key="p.address"
          v-memo="[
            p,
            selection.has(p.address),
            draft.selected === p.address,
            open === p.address,
            typing === p.address && lineKind,
            strands.get(p.address),
            findings.at(p.address),
          ]"
          role="listitem"
          :aria-setsize="draft.places.length"
          :aria-posinset="p.order + 1"
          class="line"
        >
          <ScriptRow
            :place="p"
            :selected="selection.has(p.address)"
            :current="draft.selected === p.address"
            :open="open === p.address"
            :strands="strands.get(p.address) ?? NO_STRANDS"
            :findings="findings.at(p.address)"
            @select="pick(p.address, $event)"
            @toggle="toggle(p.address)"
            @add="typing = p.address"
            @remove="script.remove([p.address])"
            @drop-on="drop($event, p.address)"
          />
          <RowEditor
            v-if="open === p.address"
            :place="p"
            @renamed="
              open = $event
              draft.select($event)
            "
            @move="panel = 'move'"
            @keydown.esc="toggle(p.address)"
          />
          <NewLine
            v-if="typing === p.address"
            :key="`new-${p.address}`"
            :kind="lineKind"
            @kind="lineKind = $event"
            @add="add"
            @outline="
              outline = $event
              typing = null
            "
            @close="close"
          />
        </div>
      </div>
      <NewLine
        v-if="typing === 'end'"
        kind="section"
        only-sections
        @kind="lineKind = $event"
        @add="add"
        @outline="
          outline = $event
          typing = null
        "
        @close="close"
      />
      <div
        v-if="draft.places.length <= 1 && !typing"
        class="teach"
      >
        <h2>Begin to type</h2>
        <p>
          Select the section above and press <kbd>Enter</kbd>. Every line is a question; <kbd>Enter</kbd> goes
          on to the next, <kbd>/</kbd> chooses its type. A pasted outline or spreadsheet becomes questions.
        </p>
        <button
          class="action"
          @click="typing = draft.places.at(-1)?.address ?? 'end'"
        >
          Type the first question
        </button>
      </div>
    </div>
    <RelationsBar
      v-if="draft.selection.length === 1"
      @go="select"
    />
  </section>
</template>

<style scoped>
.script {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--paper);
}
.tools-bar {
  display: flex;
  align-items: center;
  gap: 14px;
  min-height: 34px;
  padding: 0 16px;
  border-bottom: 1px solid var(--line);
  flex: none;
}
/* An opaque ground lets the browser scroll what is drawn already, without drawing it anew. */
.rows {
  position: relative;
  overflow-y: auto;
  flex: 1;
  padding-bottom: 80px;
  background: var(--paper);
  will-change: scroll-position;
}
.line {
  contain: layout style;
}
.refused {
  padding: 6px 16px;
  background: var(--madder-wash);
  flex: none;
}
.refused.risk {
  background: var(--weld-wash);
}
.panel {
  flex: none;
  max-height: 60%;
  overflow-y: auto;
}
.teach {
  padding: 40px 104px;
  display: grid;
  gap: 12px;
  justify-items: start;
  max-width: 46ch;
}
</style>
