<script setup lang="ts">
import { useRowDrag } from '~/composables/script/useRowDrag'
import { SEVERITY_MARKS } from '~/theme/severityMarks'
import type { Finding } from '#core/prove/finding'
import { typeBrief } from '#core/form/types'
import { nodeText, type Address, type Place } from '#core/form/walk'
import type { Strand } from './strand'

const props = defineProps<{
  place: Place
  selected: boolean
  current: boolean
  open: boolean
  strands: Strand[]
  findings: readonly Finding[]
}>()
const emit = defineEmits<{
  select: [event: MouseEvent | FocusEvent]
  toggle: []
  add: []
  remove: []
  dropOn: [dragged: Address]
}>()
const draft = useDraft()
const row = useTemplateRef('row')
/** The tools of a row are made when they are wanted: most rows of a long script are only scrolled by. */
const near = ref(false)

const label = computed(() => nodeText(props.place.node).text)
const brief = computed(() => {
  const { kind, node } = props.place
  if (kind === 'question' && draft.form) return typeBrief(node, draft.form)
  if (kind === 'section') return ''
  return kind === 'group' && node.repeat ? 'group, in entries' : kind
})
const rehearsal = useRehearsal()
const folds = useFolded()
/** Of a section: whether only its heading shows, and how many lines it has. */
const folded = computed(() => props.place.kind === 'section' && folds.isFolded(props.place.address))
const count = computed(() =>
  folded.value ? draft.places.filter(p => p.section === props.place.section).length - 1 : 0,
)
const worst = computed(() => props.findings[0])
/** A plain click on the label opens the row; with Shift or Control it selects like anywhere else. */
function act(event: MouseEvent) {
  if (event.shiftKey || event.ctrlKey || event.metaKey) return
  event.stopPropagation()
  emit('toggle')
}
const over = useRowDrag(row, {
  address: () => props.place.address,
  dropOn: dragged => emit('dropOn', dragged),
})
</script>

<template>
  <div
    ref="row"
    class="row"
    :class="[place.kind, { selected, open, over, concerned: rehearsal.concerned.has(place.address) }]"
    :data-address="place.address"
    :tabindex="current ? 0 : -1"
    :aria-current="current ? 'true' : undefined"
    @click="emit('select', $event)"
    @focus="emit('select', $event)"
    @dblclick="emit('toggle')"
    @pointerenter="near = true"
    @pointerleave="near = false"
  >
    <span
      class="margin"
      aria-hidden="true"
    >
      <span
        v-for="s in strands"
        :key="s.lane"
        class="strand"
        :class="[s.part, { above: s.above, below: s.below, lit: s.lit }]"
        :style="{ '--lane': s.lane }"
        ><i
      /></span>
    </span>
    <span class="number num"
      ><button
        v-if="place.kind === 'section'"
        class="fold"
        tabindex="-1"
        :aria-expanded="!folded"
        :aria-label="`Lines of ${label}`"
        @click.stop="folds.fold(place.address, !folded)"
      >
        <v-icon
          :icon="folded ? '$next' : '$expand'"
          size="16"
        /></button
      >{{ place.number }}</span
    >
    <span
      class="words"
      :style="{ paddingLeft: `${place.groups.length * 18}px` }"
    >
      <button
        class="label"
        :aria-expanded="open"
        tabindex="-1"
        @click="act($event)"
      >
        {{ label || '(no words yet)'
        }}<span
          v-if="place.kind === 'question' && 'required' in place.node && place.node.required === true"
          class="fault"
          title="Required"
        >
          *</span
        >
      </button>
      <span
        v-if="folded"
        class="small quiet"
        >{{ counted(count, 'line') }}</span
      >
      <RowRules :place="place" />
    </span>
    <code class="code-cell">{{ place.code }}</code>
    <span class="type quiet">{{ brief }} <RemarkMark :about="place.address" /></span>
    <span
      class="mark-cell"
      :class="worst?.severity"
    >
      <template v-if="worst"
        ><span :title="worst.sentence">{{ SEVERITY_MARKS[worst.severity] }}</span
        ><span class="hidden-words">{{ worst.severity }}: {{ worst.sentence }}</span></template
      >
    </span>
    <span
      v-if="(near || selected) && draft.canEdit"
      class="row-tools"
    >
      <button
        class="row-tool"
        tabindex="-1"
        :aria-label="`Add a line below ${label}`"
        @click.stop="emit('add')"
      >
        +
      </button>
      <button
        class="row-tool"
        tabindex="-1"
        :aria-label="`Delete ${label}`"
        @click.stop="emit('remove')"
      >
        ×
      </button>
    </span>
  </div>
  <div
    v-if="open && findings.length > 0"
    class="row-findings"
  >
    <FindingRow
      v-for="(f, i) in findings"
      :key="i"
      :finding="f"
    />
  </div>
  <RowRemarks
    v-if="open"
    :about="place.address"
  />
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 58px 40px minmax(0, 1fr) 128px 104px 18px 36px;
  align-items: center;
  min-height: 32px;
  border-bottom: 1px solid transparent;
  position: relative;
  cursor: default;
  padding: 0 8px 0 0;
  font-size: 14px;
}
.row.section {
  background: var(--linen);
  border-top: 1px solid var(--line);
  border-bottom: 1px solid var(--line);
  font-weight: 700;
  font-size: 15px;
}
.row.selected {
  background: var(--verdigris-wash);
  box-shadow:
    inset 0 1px var(--verdigris),
    inset 0 -1px var(--verdigris);
}
.row.over {
  box-shadow: inset 0 -3px var(--verdigris);
}
.row:focus-visible {
  outline-offset: -2px;
}
.number {
  color: var(--slate);
  font-weight: 400;
  font-size: 13px;
  padding-left: 4px;
}
.words {
  display: grid;
  padding: 5px 8px 5px 0;
  min-width: 0;
}
.label {
  border: 0;
  background: none;
  padding: 0;
  text-align: left;
  font: inherit;
  cursor: pointer;
  overflow-wrap: anywhere;
}
.group .label {
  font-weight: 600;
}
.note .label {
  font-style: italic;
  color: var(--slate);
  display: -webkit-box;
  -webkit-line-clamp: 1;
  line-clamp: 1;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.fold {
  border: 0;
  background: none;
  padding: 0;
  margin-left: -16px;
  cursor: pointer;
  color: var(--slate);
  vertical-align: middle;
}
.code-cell {
  color: var(--slate);
  font-weight: 400;
  overflow: hidden;
  text-overflow: ellipsis;
}
.type {
  font-size: 13px;
  font-weight: 400;
}
.row-tools {
  display: flex;
  gap: 6px;
}
.row-tool {
  border: 0;
  background: none;
  padding: 2px;
  color: var(--woad);
  cursor: pointer;
  font-size: 16px;
}
.margin {
  align-self: stretch;
  position: relative;
}
.strand {
  position: absolute;
  inset: 0;
  color: var(--line);
  left: calc(12px + var(--lane) * 9px);
}
.row.concerned {
  box-shadow: inset 3px 0 0 var(--woad);
  background: var(--woad-wash);
}
.strand.lit {
  color: var(--verdigris);
  z-index: 1;
}
.strand::before,
.strand::after {
  content: '';
  position: absolute;
  left: 0;
  width: 0;
  border-left: 1.5px solid currentColor;
}
.strand.above::before {
  top: -1px;
  height: calc(50% + 1px);
}
.strand.below::after {
  top: 50%;
  bottom: -1px;
}
.strand i {
  display: none;
}
.strand.gate i,
.strand.end i {
  display: block;
  position: absolute;
  top: 50%;
  left: 0;
  right: 6px;
  border-top: 1.5px solid currentColor;
}
.strand.gate i::after,
.strand.end i::after {
  content: '';
  position: absolute;
  right: -4px;
  top: -5px;
  width: 6px;
  height: 6px;
  border: 1.5px solid currentColor;
  border-radius: 50%;
  background: var(--paper);
}
.strand.gate i::after {
  background: currentColor;
}
.row-findings {
  padding: 6px 16px 6px 104px;
  background: var(--paper);
}
</style>
