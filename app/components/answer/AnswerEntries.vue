<script setup lang="ts">
import { HEADING_BELOW } from './keys'
import { besideEachOther } from './layout'
import { isRecord, type Answer, type Answers } from '#core/form/answers'
import type { Frame } from '#core/fill/fill'
import { entryHeading } from '#core/fill/quote'
import type { PlannedGroup } from '#core/fill/planned'
import type { Address } from '#core/form/walk'

/** A repeating group: its entries with their headings; added, removed and put in order. */
const props = defineProps<{
  group: PlannedGroup
  frame: Frame
  answer: Answer | undefined
  tried: boolean
  lit: Address | null
  id: string
}>()
const emit = defineEmits<{ answer: [value: Answer] }>()
const frames = computed(() => props.frame.entries.get(props.group.place.order) ?? [])
const locked = computed(() => props.frame.locked[props.group.place.order] === true)
const list = computed((): Answers[] =>
  frames.value.map((_, i) => {
    const entry = Array.isArray(props.answer) ? props.answer[i] : undefined
    return isRecord(entry) ? entry : {}
  }),
)
const repeat = computed(() => props.group.place.node.repeat)
const title = computed(() => props.group.place.node.title || 'Entries')
const heading = inject(HEADING_BELOW, ref('h3'))
const said = ref('')
const box = useTemplateRef('box')

function put(i: number, code: string, value: Answer) {
  removed.value = null
  emit(
    'answer',
    list.value.map((e, j) => (j === i ? { ...e, [code]: value } : e)),
  )
}
function add() {
  removed.value = null
  emit('answer', [...list.value, {}])
  said.value = `Entry ${list.value.length + 1} is added.`
  void nextTick(() =>
    box.value
      ?.querySelector<HTMLElement>(`.entry:last-of-type .fields :is(input, select, textarea, button)`)
      ?.focus(),
  )
}
/** The entry that was removed last, until something else is done. */
const removed = ref<{ at: number; entry: Answers; name: string } | null>(null)
const focusSoon = (selector: string) =>
  void nextTick(() => box.value?.querySelector<HTMLElement>(selector)?.focus())
function remove(i: number) {
  const [entry, frame] = [list.value[i], frames.value[i]]
  if (entry && frame) removed.value = { at: i, entry, name: entryHeading(frame, props.group.place, i) }
  emit('answer', list.value.toSpliced(i, 1))
  focusSoon('.undo')
}
function takeBack() {
  if (!removed.value) return
  const { at, entry, name } = removed.value
  removed.value = null
  emit('answer', list.value.toSpliced(at, 0, entry))
  said.value = `${name} is back.`
  focusSoon(`[data-entry="${at}"] .remove`)
}
/** The entry that was moved keeps the focus, at the button that goes on the same way. */
function move(i: number, by: 1 | -1) {
  const entry = list.value[i]
  const at = i + by
  if (entry) emit('answer', list.value.toSpliced(i, 1).toSpliced(at, 0, entry))
  said.value = `Entry ${i + 1} is now number ${at + 1}.`
  const isAtEnd = at === 0 || at === list.value.length - 1
  const way = isAtEnd ? '.tool' : `[data-by="${by}"]`
  focusSoon(`[data-entry="${at}"] ${way}`)
}
</script>

<template>
  <div
    :id="`${id}-box`"
    ref="box"
    class="entries"
    role="group"
    :aria-label="title"
  >
    <component
      :is="heading"
      v-if="group.place.node.title"
      class="group-title"
      >{{ group.place.node.title }}</component
    >
    <p
      v-if="frames.length === 0"
      class="quiet small"
    >
      None yet.
    </p>
    <div
      v-for="(f, i) in frames"
      :key="i"
      class="entry sheet"
      :data-entry="i"
      role="group"
      :aria-label="entryHeading(f, group.place, i)"
    >
      <div class="row-flex entry-head">
        <strong class="spread">{{ entryHeading(f, group.place, i) }}</strong>
        <template v-if="!locked">
          <v-btn
            v-if="i > 0"
            variant="plain"
            class="tool"
            data-by="-1"
            :aria-label="`Move ${entryHeading(f, group.place, i)} up`"
            @click="move(i, -1)"
          >
            ↑
          </v-btn>
          <v-btn
            v-if="i < frames.length - 1"
            variant="plain"
            class="tool"
            data-by="1"
            :aria-label="`Move ${entryHeading(f, group.place, i)} down`"
            @click="move(i, 1)"
          >
            ↓
          </v-btn>
          <v-btn
            v-if="frames.length > group.min"
            variant="text"
            class="remove"
            :aria-label="`Remove ${entryHeading(f, group.place, i)}`"
            @click="remove(i)"
            >Remove</v-btn
          >
        </template>
      </div>
      <div
        v-bind="besideEachOther(group.place.node.columns)"
        class="fields"
      >
        <AnswerItems
          :frame="f"
          :steps="group.steps"
          :parent="group.place.order"
          :only="null"
          :answers="list[i] ?? {}"
          :tried="tried"
          :lit="lit"
          :prefix="`${id}-${i}`"
          @answer="(code, value) => put(i, code, value)"
        />
      </div>
    </div>
    <RemovedLine
      v-if="removed"
      :name="removed.name"
      @undo="takeBack"
    />
    <v-btn
      v-if="!locked && frames.length < group.max"
      class="add"
      @click="add"
    >
      + {{ repeat?.add || `Add to ${title}` }}
    </v-btn>
    <p
      v-else-if="!locked"
      class="small quiet"
    >
      At most {{ group.max }} fit.
    </p>
    <span
      class="hidden-words"
      aria-live="polite"
      >{{ said }}</span
    >
  </div>
</template>

<style scoped>
.entries {
  display: grid;
  gap: 14px;
}
.group-title {
  font-size: 17px;
}
.entry {
  padding: 8px 16px 20px;
}
.entry-head {
  min-height: 44px;
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
.add {
  justify-self: start;
  min-height: 44px;
}
</style>
