<script setup lang="ts">
import { mdiChevronDown, mdiChevronRight } from '@mdi/js'
import { useEventListener } from '@vueuse/core'
import { Access, type Turn } from '#core/form/turns'
import { placeName, type Place } from '#core/form/walk'
import { accessViewOf } from '#core/parties/access'
import { useTurns } from '~/composables/write/useTurns'

/** Sections × turns: who fills, reads or never sees what. By keyboard, or by pressing and dragging over cells. */
const draft = useDraft()
const { turns, nameOf, put } = useTurns()
const WORDS: Record<Access, string> = { fills: 'fills', reads: 'reads', never: 'never sees' }
const KEYS: Partial<Record<string, Access>> = { f: 'fills', r: 'reads', n: 'never' }
const opened = ref(new Set<string>())
const sectionOf = (p: Place) => draft.form?.sections[p.section]?.code ?? ''
const isNamed = (p: Place) => turns.value.some(t => p.kind !== 'section' && Object.hasOwn(t.access, p.code))
const rows = computed(() =>
  draft.places.filter(p => {
    if (p.kind === 'section') return true
    const isAsked = p.kind === 'question' || p.kind === 'group'
    return isAsked && (opened.value.has(sectionOf(p)) || isNamed(p))
  }),
)
const views = computed(() =>
  turns.value.map(t => (draft.form ? accessViewOf(draft.form, draft.places, t).at : [])),
)
/** What a turn does with a row; a section by what is said of it, not by what its questions say. */
function accessOf(place: Place, column: number): Access {
  const turn = turns.value[column]
  if (place.kind === 'section') return turn?.access[place.code] ?? 'never'
  return views.value[column]?.[place.order] ?? 'never'
}
function toggle({ code }: Place) {
  const next = new Set(opened.value)
  if (!next.delete(code)) next.add(code)
  opened.value = next
}

/** What a turn says of what stands around a place: the innermost group that it names, else the section. */
function accessAround(turn: Turn, place: Place): Access {
  const group = place.groups.findLast(g => Object.hasOwn(turn.access, g.code))
  return turn.access[group?.code ?? sectionOf(place)] ?? 'never'
}

/** A question that does what stands around it does needs no mention. */
function withAccess(turn: Turn, place: Place, access: Access): Turn {
  const { [place.code]: _, ...others } = turn.access
  const isSame = place.kind !== 'section' && accessAround(turn, place) === access
  return { ...turn, access: isSame ? others : { ...others, [place.code]: access } }
}
let gesture = 0
const set = (place: Place, column: number, access: Access) =>
  put(
    turns.value.map((t, i) => (i === column ? withAccess(t, place, access) : t)),
    `access${gesture}`,
  )
/** What comes next when a cell is pressed. What stands in entries is seen with them or not: they are filled as a whole. */
function afterwards(place: Place, column: number): Access {
  const access = accessOf(place, column)
  const turn = turns.value[column]
  if (!place.entryOf || !turn)
    return Access.options[(Access.options.indexOf(access) + 1) % Access.options.length] ?? 'never'
  if (access !== 'never') return 'never'
  const around = accessAround(turn, place)
  return around === 'never' ? 'reads' : around
}

const painted = ref<Access | null>(null)
function press(place: Place, column: number) {
  gesture += 1
  painted.value = afterwards(place, column)
  focused.value = { row: rows.value.indexOf(place), column }
  set(place, column, painted.value)
}
function enter(place: Place, column: number) {
  if (painted.value !== null) set(place, column, painted.value)
}
useEventListener('pointerup', () => (painted.value = null))

const focused = ref({ row: 0, column: 0 })
const table = useTemplateRef('table')
const MOVES: Partial<Record<string, readonly [number, number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
}
function keys(event: KeyboardEvent) {
  const place = rows.value[focused.value.row]
  const move = MOVES[event.key]
  const { column } = focused.value
  if (!place || event.ctrlKey || event.metaKey || event.altKey) return
  if (move) focusAt(focused.value.row + move[0], column + move[1])
  else if (event.key === ' ' || event.key === 'Enter') change(place, afterwards(place, column))
  else if (KEYS[event.key]) change(place, KEYS[event.key] ?? 'never')
  else return
  event.preventDefault()
  event.stopPropagation()
}
function change(place: Place, access: Access) {
  gesture += 1
  set(place, focused.value.column, access)
}
function focusAt(row: number, column: number) {
  const within = (n: number, count: number) => Math.max(0, Math.min(count - 1, n))
  focused.value = { row: within(row, rows.value.length), column: within(column, turns.value.length) }
  const root: unknown = table.value?.$el
  void nextTick(() => {
    if (root instanceof HTMLElement) root.querySelector<HTMLElement>('td[tabindex="0"]')?.focus()
  })
}
</script>

<template>
  <v-table
    ref="table"
    class="sheet matrix"
    @keydown="keys"
  >
    <thead>
      <tr>
        <th>Section</th>
        <th
          v-for="t in turns"
          :key="t.code"
        >
          {{ nameOf(t) }}
        </th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="(p, row) in rows"
        :key="p.address"
      >
        <th
          scope="row"
          :class="{ inner: p.kind !== 'section', inEntry: p.entryOf !== null }"
        >
          <IconButton
            v-if="p.kind === 'section'"
            :icon="opened.has(p.code) ? mdiChevronDown : mdiChevronRight"
            :name="`Questions of ${placeName(p)}`"
            :aria-expanded="opened.has(p.code)"
            tabindex="-1"
            @click="toggle(p)"
          />
          <span class="num">{{ p.number }}</span> {{ placeName(p) }}
        </th>
        <td
          v-for="(t, column) in turns"
          :key="t.code"
          :tabindex="focused.row === row && focused.column === column ? 0 : -1"
          :aria-label="`${nameOf(t)}, ${placeName(p)}: ${WORDS[accessOf(p, column)]}`"
          @focus="focused = { row, column }"
          @pointerdown.prevent="press(p, column)"
          @pointerenter="enter(p, column)"
        >
          <span
            class="access"
            :class="accessOf(p, column)"
            >{{ WORDS[accessOf(p, column)] }}</span
          >
        </td>
      </tr>
    </tbody>
  </v-table>
  <p class="small quiet">
    Press a cell, or drag over several. By keyboard: arrows, <kbd>F</kbd> fills, <kbd>R</kbd> reads,
    <kbd>N</kbd> never sees. Entries that repeat are filled whole: a turn that is kept from something in them
    reads the rest.
  </p>
</template>

<style scoped>
.matrix th {
  font-weight: 400;
  text-align: left;
  padding: 3px 10px;
}
thead th {
  color: var(--slate);
  font-size: 13px;
}
.matrix .inner {
  color: var(--slate);
  padding-left: 52px;
  font-size: 13px;
}
.matrix .inEntry {
  padding-left: 76px;
}
td {
  width: 130px;
  cursor: pointer;
  user-select: none;
}
td:focus-visible {
  outline: 2px solid var(--woad);
  outline-offset: -2px;
}
.access {
  display: inline-block;
  padding: 1px 9px;
  font-size: 13px;
  color: var(--slate);
}
.access.fills {
  background: var(--verdigris);
  color: var(--on-action);
  font-weight: 600;
}
.access.reads {
  background: var(--verdigris-wash);
  color: var(--ink);
}
</style>
