<script setup lang="ts">
import type { WidgetEmits, WidgetProps } from './widget'

/** Choices put into an order: dragged, moved by buttons, or by Alt and the arrow keys. */
const props = defineProps<WidgetProps<'ranking'>>()
const emit = defineEmits<WidgetEmits>()
const ranked = computed(() =>
  (Array.isArray(props.value) ? props.value : [])
    .map(String)
    .filter(c => props.question.options.some(o => o.code === c)),
)
const open = computed(() => props.question.options.filter(o => !ranked.value.includes(o.code)))
const most = computed(() =>
  Math.min(props.question.most ?? props.question.options.length, props.question.options.length),
)
const labelOf = (code: string) => props.question.options.find(o => o.code === code)?.label ?? code
const list = useTemplateRef('list')
const box = useTemplateRef('box')
const said = ref('')

function put(codes: string[]) {
  emit('answer', codes.length === 0 ? null : codes)
}
function move(code: string, to: number, focus = true) {
  const without = ranked.value.filter(c => c !== code)
  const at = Math.max(0, Math.min(without.length, to))
  put(without.toSpliced(at, 0, code))
  said.value = `${labelOf(code)} is now number ${at + 1}.`
  if (focus) focusSoon(`[data-code="${CSS.escape(code)}"]`)
}
/** The next one that can be chosen, or once all are, the one that was. */
function add(code: string) {
  const next =
    open.value.find((_, i) => open.value[i - 1]?.code === code) ?? open.value.find(o => o.code !== code)
  const isFull = ranked.value.length + 1 >= most.value
  put([...ranked.value, code])
  said.value = `${labelOf(code)} is number ${ranked.value.length + 1}.`
  focusSoon(next && !isFull ? openOne(next.code) : `[data-code="${CSS.escape(code)}"]`)
}
function takeOut(code: string) {
  put(ranked.value.filter(c => c !== code))
  said.value = `${labelOf(code)} is out of the order.`
  focusSoon(openOne(code))
}
const openOne = (code: string) => `[data-open="${CSS.escape(code)}"]`
const focusSoon = (selector: string) =>
  void nextTick(() => box.value?.querySelector<HTMLElement>(selector)?.focus())
/** Going from one button of the widget to another is no leaving. */
function leave(event: FocusEvent) {
  if (!(
    event.currentTarget instanceof Node &&
    event.relatedTarget instanceof Node &&
    event.currentTarget.contains(event.relatedTarget)
  ))
    emit('left')
}
const isItem = (value: unknown): value is string => typeof value === 'string'
let stops: (() => void)[] = []
/** Each item can be dragged, and takes what is dropped on it. What does the dragging is fetched once there is something to drag. */
async function wire() {
  if (ranked.value.length < 2) return
  const { draggable, dropTargetForElements } =
    await import('@atlaskit/pragmatic-drag-and-drop/element/adapter')
  stops.forEach(stop => stop())
  stops = [...(list.value?.querySelectorAll<HTMLElement>('[data-code]') ?? [])].flatMap(element => {
    const code = element.dataset.code ?? ''
    return [
      draggable({ element, getInitialData: () => ({ ranked: code, of: props.id }) }),
      dropTargetForElements({
        element,
        canDrop: ({ source }) => source.data.of === props.id,
        onDrop: ({ source }) => {
          if (isItem(source.data.ranked)) move(source.data.ranked, ranked.value.indexOf(code), false)
        },
      }),
    ]
  })
}
onMounted(wire)
watch(ranked, () => void nextTick(wire))
onBeforeUnmount(() => stops.forEach(stop => stop()))
</script>

<template>
  <div
    ref="box"
    class="ranking"
    @focusout="leave"
  >
    <ol
      ref="list"
      :aria-labelledby="labelledby"
    >
      <li
        v-for="(code, i) in ranked"
        :key="code"
        :data-code="code"
        tabindex="0"
        @keydown.alt.up.prevent="move(code, i - 1)"
        @keydown.alt.down.prevent="move(code, i + 1)"
      >
        <span class="num place">{{ i + 1 }}</span><span class="spread">{{ labelOf(code) }}</span>
        <button
          type="button"
          class="own-button tool"
          :disabled="i === 0"
          :aria-label="`Move ${labelOf(code)} up`"
          @click="move(code, i - 1, false)"
        >
          ↑
        </button>
        <button
          type="button"
          class="own-button tool"
          :disabled="i === ranked.length - 1"
          :aria-label="`Move ${labelOf(code)} down`"
          @click="move(code, i + 1, false)"
        >
          ↓
        </button>
        <button
          type="button"
          class="own-button tool"
          :aria-label="`Take ${labelOf(code)} out of the order`"
          @click="takeOut(code)"
        >
          ×
        </button>
      </li>
    </ol>
    <p
      v-if="open.length > 0 && ranked.length < most"
      class="small quiet"
    >
      Choose {{ ranked.length === 0 ? 'the first' : 'the next' }}, {{ most - ranked.length }} to go:
    </p>
    <div
      v-if="ranked.length < most"
      class="open"
    >
      <button
        v-for="(o, i) in open"
        :id="i === 0 ? id : undefined"
        :key="o.code"
        type="button"
        :data-open="o.code"
        class="own-button"
        @click="add(o.code)"
      >
        {{ o.label }}
      </button>
    </div>
    <span
      class="hidden-words"
      aria-live="polite"
      >{{ said }}</span
    >
  </div>
</template>

<style scoped>
.ranking {
  display: grid;
  gap: 8px;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 44px;
  padding-block: 0;
  padding-inline: 14px 6px;
  border: 1px solid var(--control-line);
  margin-top: -1px;
  background: var(--paper);
  cursor: grab;
}
.place {
  width: 24px;
  font-weight: 700;
  color: var(--verdigris);
}
.tool {
  border: 0;
  background: none;
  min-width: 40px;
  min-height: 40px;
  cursor: pointer;
  color: var(--woad);
  font-size: 17px;
}
.tool:disabled {
  visibility: hidden;
}
.open {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.open .own-button {
  min-height: 44px;
}
</style>
