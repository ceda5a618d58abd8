<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import type { LineKind } from '#core/form/create'
import type { Address } from '#core/form/walk'
import { useRowExtent } from '~/composables/script/useRowExtent'
import { isElsewhere, useScriptKeys } from '~/composables/script/useScriptKeys'
import { useStrands } from '~/composables/script/useStrands'
import type { ScriptPanel } from './ScriptTools.vue'
import type { Strand } from './strand'

/** The script: the form as a dense, numbered list in which lines are typed, opened in place, moved and threaded together. */
const draft = useDraft()
const findings = useFindings()
const script = useScript()
const begun = useBegunRows()
const folds = useFolded()
const open = ref<Address | null>(null)
/** Where the next line is being typed: below this row; `end` when the form is empty. */
const typing = ref<Address | 'end' | null>(null)
const lineKind = ref<LineKind>('text')
const panel = ref<ScriptPanel | null>(null)
const outline = ref<string | null>(null)
const list = useTemplateRef('list')
const NO_STRANDS: Strand[] = []

const strands = useStrands()
const { extent, rows, scrolled, reveal } = useRowExtent(list)
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
  const isPress = event instanceof MouseEvent
  // A press brings the focus first; what it selects is the click's to say.
  if (!isPress && (pressing.value || draft.selection.includes(address))) return
  draft.select(address, isPress ? howSelected(event) : 'only')
}
function howSelected(event: MouseEvent): 'only' | 'stretch' | 'toggle' {
  if (event.shiftKey) return 'stretch'
  return event.ctrlKey || event.metaKey ? 'toggle' : 'only'
}
function toggle(address: Address) {
  draft.select(address)
  open.value = open.value === address ? null : address
  if (!open.value) focus(address)
}
// A form without a line is one that is being begun: with the cursor where its first question is typed.
onMounted(() => {
  const [only, ...others] = draft.places
  if (!only || others.length > 0) return
  begun.begin(only.address)
  typing.value = only.address
})
watch(
  () => draft.selected ?? typing.value,
  address => {
    if (address !== null && address !== 'end') begun.leaveBut(address)
  },
)
onBeforeUnmount(() => begun.leaveBut(null))
// Whoever points at a place from elsewhere (a thread, a finding, the rulebook) finds it on screen.
watch(
  () => draft.selected,
  address => {
    if (!address) return
    folds.show(address)
    void nextTick(() => reveal(address))
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
  if (lines.length === 1) begun.begin(address)
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
const { onKey, after } = useScriptKeys({
  ...{ select, focus, toggle },
  typeBelow: address => (typing.value = address),
  closeAll: ({ address }) => {
    open.value = null
    panel.value = null
    select(address)
  },
  openPanel: key => (panel.value = key),
})
function closePanel() {
  panel.value = null
  focus(draft.selected)
}
function showOutline(text: string) {
  outline.value = text
  typing.value = null
}
function closeOutline() {
  outline.value = null
  focus(draft.selected)
}
function followRename(address: Address) {
  open.value = address
  draft.select(address)
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
function drop(dragged: Address, onto: Address) {
  if (script.dropOn(dragged, onto)) focus(dragged)
}
function whole(event: KeyboardEvent) {
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'f') {
    event.preventDefault()
    panel.value = 'find'
  }
}
useEventListener('keydown', whole)
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
    <ScriptTools
      v-model:panel="panel"
      @outline="outline = ''"
      @add="typing = draft.selected ?? draft.places.at(-1)?.address ?? 'end'"
    />
    <ScriptNotices />
    <SelectionBar
      v-if="draft.selection.length > 1"
      @move="panel = 'move'"
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
      @close="closePanel"
    />
    <KeysPanel
      v-if="panel === 'keys'"
      @close="closePanel"
    />
    <OutlinePanel
      v-if="outline !== null"
      :text="outline"
      @close="closeOutline"
    />
    <DeletePanel
      v-if="script.doomed.value"
      @close="focus(draft.selected)"
    />
    <div
      ref="list"
      class="rows"
      @mousedown.capture="pressing = true"
      @click.capture="pressing = false"
      @scroll.passive="scrolled"
      @keydown="onKey"
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
            folds.isFolded(p.address),
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
          <fieldset
            v-if="open === p.address"
            class="readable"
            :disabled="!draft.canEdit"
          >
            <RowEditor
              :place="p"
              @renamed="followRename"
              @move="panel = 'move'"
              @keydown.esc="toggle(p.address)"
            />
          </fieldset>
          <NewLine
            v-if="typing === p.address && draft.canEdit"
            :key="`new-${p.address}`"
            :kind="lineKind"
            @kind="lineKind = $event"
            @add="add"
            @outline="showOutline"
            @close="close"
          />
        </div>
      </div>
      <NewLine
        v-if="typing === 'end' && draft.canEdit"
        kind="section"
        only-sections
        @kind="lineKind = $event"
        @add="add"
        @outline="showOutline"
        @close="close"
      />
      <ScriptTeach
        v-if="draft.places.length <= 1 && !typing"
        @begin="typing = draft.places.at(-1)?.address ?? 'end'"
      />
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
.panel {
  flex: none;
  max-height: 60%;
  overflow-y: auto;
}
</style>
