<script setup lang="ts">
import { HEADING_BELOW } from './keys'
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

const put = (i: number, code: string, value: Answer) =>
  emit(
    'answer',
    list.value.map((e, j) => (j === i ? { ...e, [code]: value } : e)),
  )
function add() {
  emit('answer', [...list.value, {}])
  said.value = `Entry ${list.value.length + 1} is added.`
  void nextTick(() =>
    box.value
      ?.querySelector<HTMLElement>(`.entry:last-of-type .fields :is(input, select, textarea, button)`)
      ?.focus(),
  )
}
function remove(i: number) {
  emit('answer', list.value.toSpliced(i, 1))
  said.value = `Entry ${i + 1} is removed.`
  void nextTick(() => box.value?.querySelector<HTMLElement>('.add')?.focus())
}
function move(i: number, by: 1 | -1) {
  const entry = list.value[i]
  if (entry) emit('answer', list.value.toSpliced(i, 1).toSpliced(i + by, 0, entry))
  said.value = `Entry ${i + 1} is now number ${i + by + 1}.`
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
            :aria-label="`Move ${entryHeading(f, group.place, i)} up`"
            @click="move(i, -1)"
          >
            ↑
          </v-btn>
          <v-btn
            v-if="i < frames.length - 1"
            variant="plain"
            class="tool"
            :aria-label="`Move ${entryHeading(f, group.place, i)} down`"
            @click="move(i, 1)"
          >
            ↓
          </v-btn>
          <v-btn
            v-if="frames.length > group.min"
            variant="text"
            :aria-label="`Remove ${entryHeading(f, group.place, i)}`"
            @click="remove(i)"
            >Remove</v-btn
          >
        </template>
      </div>
      <div class="fields">
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
.fields {
  display: grid;
  gap: 22px;
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
