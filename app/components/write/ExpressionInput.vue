<script setup lang="ts">
import type { ValueType } from '#core/expressions/types'
import type { Place } from '#core/form/walk'
import { createExpressionEditor } from '~/composables/write/expressionEditor'
import { useCompletions } from '~/composables/write/useCompletions'

/** An expression as text: completes questions, choices and functions, and says errors at their place with the nearest right spelling. */
const props = defineProps<{
  text: string
  label: string
  place: Place
  wanted: ValueType | null | undefined
  row?: string
  placeholder?: string
  /** Nothing is written any more; what stood there stays in force until the field is left. */
  isEmptied?: boolean
}>()
const emit = defineEmits<{ write: [text: string] }>()
const draft = useDraft()
const box = useTemplateRef('box')
const suggest = useCompletions(() => props.place)

const reading = computed(() => {
  if (props.isEmptied || props.text.trim() === '' || !draft.names) return null
  if (props.wanted === undefined) return draft.names.read(props.text, props.place)
  return draft.names.read(props.text, props.place, props.wanted, props.row ?? null)
})
const problem = computed(() => {
  const { syntax, problems } = reading.value ?? {}
  return syntax
    ? {
        from: syntax.from,
        to: syntax.to,
        sentence: syntax.message,
        instead: syntax.instead?.includes('…') ? null : (syntax.instead ?? null),
      }
    : (problems?.[0] ?? null)
})

let editor: ReturnType<typeof createExpressionEditor> | null = null
onMounted(() => {
  if (!box.value) return
  editor = createExpressionEditor({
    parent: box.value,
    text: props.text,
    label: props.label,
    placeholder: props.placeholder ?? '',
    suggest,
    isEditable: draft.canEdit,
    onWrite: text => {
      if (text !== props.text) emit('write', text)
    },
  })
  editor.setProblem(problem.value)
})
onBeforeUnmount(() => editor?.destroy())
watch(
  () => props.text,
  text => editor?.setText(text),
)
watch(problem, found => editor?.setProblem(found), { flush: 'post' })
function writeInstead() {
  const { value } = problem
  if (value?.instead) editor?.replace(value.from, value.to, value.instead)
}
</script>

<template>
  <div class="expression-input">
    <div
      ref="box"
      class="editor-box"
      @keydown.stop
    />
    <p
      v-if="problem"
      class="small fault"
      role="alert"
    >
      ✕ Character {{ problem.from + 1 }}: {{ problem.sentence }}
      <v-btn
        v-if="problem.instead"
        variant="text"
        @click="writeInstead"
      >
        Write {{ problem.instead }}
      </v-btn>
    </p>
  </div>
</template>

<style scoped>
.expression-input {
  display: grid;
  gap: 2px;
  min-width: 0;
}
.editor-box {
  border: 1px solid var(--control-line);
  border-radius: 2px;
  background: var(--paper);
  min-height: 32px;
}
.editor-box:focus-within {
  outline: 2px solid var(--woad);
  outline-offset: 1px;
}
</style>
