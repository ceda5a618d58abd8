<script setup lang="ts">
import { ROW_FINDER } from '../keys'
import { isRecord, type Answer } from '#core/form/answers'
import { offeredNow } from '#core/fill/fill'
import { writeInLabel } from '#core/form/types'
import { WRITE_IN, type OfferedRow } from '#core/form/rows'
import { fieldAttributes, rowCount, type WidgetEmits, type WidgetProps } from './widget'

/** A list that is searched by typing: the ARIA combobox pattern with a list box. Several choices stand as removable words above it. */
const props = defineProps<WidgetProps<'choice' | 'choices'>>()
const emit = defineEmits<WidgetEmits>()
const MOST_SHOWN = 60
const many = computed(() => props.question.type === 'choices')
const typed = ref<string | null>(null)
const open = ref(false)
const active = ref(0)
const list = useTemplateRef('list')

const rows = computed((): OfferedRow[] => {
  const offered = offeredNow(props.frame, props.step)
  const own = [...(props.step.offer?.rows.values() ?? [])].filter(
    r => offered === null || offered.has(r.code),
  )
  return props.question.writeIn ? [...own, { code: WRITE_IN, label: writeInLabel(props.question) }] : own
})
const given = computed((): readonly Answer[] => {
  if (Array.isArray(props.value)) return props.value
  return props.value === null ? [] : [props.value]
})
const codes = computed(() => given.value.map(g => (isRecord(g) ? WRITE_IN : g)))
const written = computed(() => {
  const own = given.value.find(g => isRecord(g))
  return isRecord(own) ? String(own[WRITE_IN] ?? '') : null
})
const labelOf = (code: Answer) => rows.value.find(r => r.code === code)?.label ?? String(code)
const shownText = computed(
  () => typed.value ?? (many.value || codes.value.length === 0 ? '' : labelOf(codes.value[0] ?? null)),
)
const plain = (text: string) => text.normalize('NFKD').replaceAll(/\p{M}/gu, '').toLowerCase()
/** A long list is searched where it is kept; the newest search counts, older answers that come late are left aside. */
const finder = inject(ROW_FINDER, null)
const isFar = computed(
  () => finder !== null && rowCount(props.step, props.frame) > (props.step.offer?.rows.size ?? 0),
)
const far = shallowRef<{ rows: OfferedRow[]; count: number } | null>(null)
const failed = ref(false)
let asking = 0
let timer: ReturnType<typeof setTimeout> | undefined
const path = computed(() => props.id.replace(/^[^-]*-/, '').replaceAll(/-(\d+)-/g, '[$1].'))
function ask() {
  if (!isFar.value || !open.value) return
  clearTimeout(timer)
  const own = (asking += 1)
  timer = setTimeout(
    () => {
      finder?.find(path.value, typed.value ?? '').then(
        result => {
          if (own !== asking) return
          far.value = result
          failed.value = false
        },
        () => {
          if (own === asking) failed.value = true
        },
      )
    },
    typed.value ? 120 : 0,
  )
}
watch([typed, open], ask)
onBeforeUnmount(() => clearTimeout(timer))
const found = computed(() => {
  if (isFar.value) return far.value?.rows ?? []
  const words = plain(typed.value ?? '')
    .split(/\s+/)
    .filter(Boolean)
  return rows.value.filter(
    r => !(many.value && codes.value.includes(r.code)) && words.every(w => plain(r.label).includes(w)),
  )
})
const shown = computed(() =>
  found.value.filter(r => !isFar.value || !(many.value && codes.value.includes(r.code))).slice(0, MOST_SHOWN),
)
const more = computed(() => (isFar.value ? (far.value?.count ?? 0) : found.value.length) - shown.value.length)

function put(next: readonly Answer[]) {
  if (next.length === 0) emit('answer', null)
  else emit('answer', many.value ? next : (next[0] ?? null))
}
function choose(row: OfferedRow | undefined) {
  if (!row) return
  if (isFar.value && props.question.list !== undefined && row.code !== WRITE_IN)
    finder?.remember(props.question.list, row)
  const answer: Answer = row.code === WRITE_IN && props.question.writeIn ? { [WRITE_IN]: '' } : row.code
  put(many.value ? [...given.value, answer] : [answer])
  typed.value = many.value ? '' : null
  open.value = many.value
  active.value = 0
}
function type(event: Event) {
  typed.value = inputText(event)
  open.value = true
  active.value = 0
  if (!many.value && typed.value === '') put([])
}
function keys(event: KeyboardEvent) {
  if (event.key === 'ArrowDown' || event.key === 'ArrowUp') {
    active.value = open.value
      ? Math.max(0, Math.min(shown.value.length - 1, active.value + (event.key === 'ArrowDown' ? 1 : -1)))
      : 0
    open.value = true
    void nextTick(() =>
      list.value?.querySelector('[aria-selected="true"]')?.scrollIntoView({ block: 'nearest' }),
    )
  } else if (event.key === 'Enter' && open.value) choose(shown.value[active.value])
  else if (event.key === 'Escape' && open.value) open.value = false
  else if (event.key === 'Backspace' && many.value && !typed.value && given.value.length > 0)
    put(given.value.slice(0, -1))
  else return
  event.preventDefault()
}
function leave() {
  open.value = false
  typed.value = null
  emit('left')
}
const write = (event: Event) =>
  put(given.value.map(g => (isRecord(g) ? { [WRITE_IN]: inputText(event) } : g)))
</script>

<template>
  <div class="search">
    <ul
      v-if="many && given.length > 0"
      class="picked"
      aria-label="Chosen"
    >
      <li
        v-for="(code, i) in codes"
        :key="i"
      >
        {{ labelOf(code) }}
        <button
          type="button"
          class="text-button"
          :aria-label="`Remove ${labelOf(code)}`"
          @click="put(given.filter((_, j) => j !== i))"
        >
          ×
        </button>
      </li>
    </ul>
    <input
      :id="id"
      class="box"
      :class="{ invalid }"
      type="text"
      role="combobox"
      autocomplete="off"
      :aria-expanded="open"
      :aria-controls="`${id}-list`"
      aria-autocomplete="list"
      :aria-activedescendant="open && shown[active] ? `${id}-o${active}` : undefined"
      :value="shownText"
      :placeholder="question.placeholder || 'Type to search'"
      v-bind="fieldAttributes(props)"
      @input="type"
      @keydown="keys"
      @focus="open = many || codes.length === 0"
      @click="open = true"
      @blur="leave"
    />
    <ul
      v-show="open"
      :id="`${id}-list`"
      ref="list"
      class="found"
      role="listbox"
      :aria-labelledby="labelledby"
    >
      <li
        v-for="(r, i) in shown"
        :id="`${id}-o${i}`"
        :key="r.code"
        role="option"
        :aria-selected="i === active"
        @mousedown.prevent="choose(r)"
      >
        {{ r.label }}
      </li>
      <li
        v-if="failed"
        role="option"
        aria-disabled="true"
        aria-selected="false"
        class="quiet"
      >
        The list can’t be reached just now; type again to try once more.
      </li>
      <li
        v-else-if="isFar && far === null"
        role="option"
        aria-disabled="true"
        aria-selected="false"
        class="quiet"
      >
        Looking …
      </li>
      <li
        v-else-if="shown.length === 0"
        role="option"
        aria-disabled="true"
        aria-selected="false"
        class="quiet"
      >
        Nothing like this is on offer.
      </li>
      <li
        v-else-if="more > 0"
        role="option"
        aria-disabled="true"
        aria-selected="false"
        class="quiet"
      >
        … and {{ more }} more: type on
      </li>
    </ul>
    <input
      v-if="written !== null"
      class="box written"
      :value="written"
      maxlength="500"
      :aria-label="`${writeInLabel(question)}: your own words`"
      @input="write"
      @blur="emit('left')"
    />
  </div>
</template>

<style scoped>
.search {
  position: relative;
}
.found {
  position: absolute;
  z-index: 20;
  left: 0;
  right: 0;
  max-height: 264px;
  overflow-y: auto;
  background: var(--paper);
  border: 1px solid var(--control-line);
  margin-top: -1px;
  box-shadow: 0 6px 18px rgb(0 0 0 / 16%);
}
.found li {
  padding: 10px 14px;
  min-height: 24px;
  cursor: pointer;
}
.found li[aria-selected='true'] {
  background: var(--verdigris-wash);
}
.picked {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 6px;
}
.picked li {
  border: 1px solid var(--verdigris);
  background: var(--verdigris-wash);
  padding: 4px 10px;
}
.picked .text-button {
  font-size: 17px;
  min-width: 24px;
  text-align: center;
}
.written {
  margin-top: 6px;
}
</style>
