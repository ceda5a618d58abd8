<script setup lang="ts">
import { mdiFormatBold, mdiFormatItalic, mdiFormatListBulleted, mdiFormatListNumbered } from '@mdi/js'
import type { RichAct, RichEditor } from './richText'
import type { WidgetEmits, WidgetProps } from './widget'

/** A long text with light formatting; what edits it comes when somebody sees such a question. */
const props = defineProps<WidgetProps<'longText'>>()
const emit = defineEmits<WidgetEmits>()
const box = useTemplateRef('box')
const editor = shallowRef<RichEditor | null>(null)
const text = computed(() => (typeof props.value === 'string' ? props.value : ''))
const ACTS: readonly { act: RichAct; name: string; icon: string }[] = [
  { act: 'bold', name: 'Bold', icon: mdiFormatBold },
  { act: 'italic', name: 'Italic', icon: mdiFormatItalic },
  { act: 'bullets', name: 'List', icon: mdiFormatListBulleted },
  { act: 'numbers', name: 'Numbered list', icon: mdiFormatListNumbered },
]
onMounted(async () => {
  const { editRichText } = await import('./richText')
  if (!box.value) return
  editor.value = editRichText(
    box.value,
    text.value,
    { id: props.id, role: 'textbox', 'aria-multiline': 'true', 'aria-labelledby': props.labelledby },
    {
      written: markdown => emit('answer', markdown.trim() === '' ? null : markdown),
      left: () => emit('left'),
    },
  )
})
watch(text, () => editor.value?.write(text.value))
onBeforeUnmount(() => editor.value?.end())
</script>

<template>
  <div
    class="rich"
    :class="{ invalid }"
    :style="{ '--lines': question.lines ?? 4 }"
  >
    <div
      class="row-flex tools"
      role="toolbar"
      aria-label="Formatting"
    >
      <IconButton
        v-for="a in ACTS"
        :key="a.act"
        :icon="a.icon"
        :name="a.name"
        @click="editor?.act(a.act)"
      />
    </div>
    <div
      ref="box"
      class="box"
    />
  </div>
</template>

<style scoped>
.rich {
  border: 1px solid var(--control-line);
  background: var(--paper);
}
.rich.invalid {
  border-color: var(--madder);
}
.rich:has(:focus-visible) {
  outline: 2px solid var(--woad);
  outline-offset: 1px;
}
.tools {
  border-bottom: 1px solid var(--line);
  padding: 2px 6px;
}
.box :deep([role='textbox']) {
  min-height: calc(var(--lines) * 1.4em);
  padding: 10px 14px;
  outline: none;
  font-size: 15px;
}
.box :deep(p + p),
.box :deep(:is(ul, ol)) {
  margin-top: 8px;
}
.box :deep(ul) {
  list-style: disc;
  padding-inline-start: 20px;
}
.box :deep(ol) {
  list-style: decimal;
  padding-inline-start: 22px;
}
</style>
