<script setup lang="ts">
import { mdiFormatQuoteOpen } from '@mdi/js'
import { pointableQuestions, quotableStanding } from '#core/form/names'
import type { Place } from '#core/form/walk'

/** A text in which answers can be quoted: by the button, or by typing two braces. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  modelValue: string
  place: Place
  /** What the text belongs to, where it can't quote that or what stands in it. */
  except?: Place | null
  multiline?: boolean
}>()
const emit = defineEmits<{ write: [text: string] }>()
const draft = useDraft()
const box = useTemplateRef('box')
const isPicking = ref(false)
/** Where in the text the quote comes, over what was typed for it. */
let spot = { from: 0, to: 0 }
const questions = computed(() =>
  isPicking.value && draft.form
    ? [
        ...pointableQuestions(draft.form, draft.places, props.place, props.except),
        ...quotableStanding(draft.places),
      ]
    : [],
)
const field = () => box.value?.querySelector<HTMLInputElement | HTMLTextAreaElement>('input, textarea')

function write(event: Event) {
  const text = inputText(event)
  emit('write', text)
  const at = field()?.selectionStart ?? text.length
  const isBegun = event instanceof InputEvent && event.data === '{' && text.slice(0, at).endsWith('{{')
  if (isBegun) pickAt(at - 2, at)
}
function pickAt(from: number, to: number) {
  spot = { from, to }
  isPicking.value = true
}
const pick = () => {
  const at = field()?.selectionStart ?? props.modelValue.length
  pickAt(at, at)
}
async function quote(code: string) {
  isPicking.value = false
  const text = `${props.modelValue.slice(0, spot.from)}{{ ${code} }}${props.modelValue.slice(spot.to)}`
  emit('write', text)
  await nextTick()
  const at = spot.from + code.length + 6
  field()?.focus()
  field()?.setSelectionRange(at, at)
}
const focus = () => field()?.focus()
/** Left without a question, the text goes on as it stands. */
function fold(isOpen: boolean) {
  isPicking.value = isOpen
  if (!isOpen) void nextTick(focus)
}
const picker = useTemplateRef('picker')
watch(picker, () => picker.value?.querySelector<HTMLElement>('input[role]')?.focus(), { flush: 'post' })
defineExpose({ focus })
</script>

<template>
  <div
    ref="box"
    class="quotable"
  >
    <v-textarea
      v-if="multiline"
      v-bind="$attrs"
      :model-value="modelValue"
      @input="write"
    />
    <v-text-field
      v-else
      v-bind="$attrs"
      :model-value="modelValue"
      @input="write"
    />
    <v-menu
      :model-value="isPicking"
      location="bottom end"
      :close-on-content-click="false"
      @update:model-value="fold"
    >
      <template #activator="{ props: activator }">
        <IconButton
          v-bind="{ ...activator, onClick: undefined }"
          :icon="mdiFormatQuoteOpen"
          name="Quote an answer"
          @click="pick"
        />
      </template>
      <v-sheet class="pick">
        <div ref="picker">
          <QuestionPicker
            value=""
            :questions="questions"
            @choose="quote"
          />
        </div>
      </v-sheet>
    </v-menu>
  </div>
</template>

<style scoped>
.quotable {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px;
  align-items: start;
}
.pick {
  padding: 8px;
  width: 320px;
}
</style>
