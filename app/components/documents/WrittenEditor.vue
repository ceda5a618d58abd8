<script setup lang="ts">
import { Image } from '@tiptap/extension-image'
import { TableKit } from '@tiptap/extension-table'
import { TextAlign } from '@tiptap/extension-text-align'
import { StarterKit } from '@tiptap/starter-kit'
import { EditorContent, useEditor } from '@tiptap/vue-3'
import { useDebounceFn } from '@vueuse/core'
import type { WrittenDocument } from '#core/form/written'
import { fromEditor, toEditor } from '~/composables/write/writtenContent'
import { useTagTarget } from '~/composables/write/tagTarget'

/** A template that is written here: its text with tags in it, a line above and one below each page. */
const props = defineProps<{ written: WrittenDocument; name: string }>()
const emit = defineEmits<{ change: [written: WrittenDocument, merge: string] }>()
const target = useTagTarget()

/** A picture keeps its size in points. */
const SizedImage = Image.extend({
  addAttributes() {
    return { ...this.parent?.(), width: { default: null }, height: { default: null } }
  },
})
const without = { blockquote: false, code: false, codeBlock: false, horizontalRule: false } as const
/** What was given out last: what comes back of it is no change from elsewhere. */
let given = JSON.stringify(props.written.body)
const editor = useEditor({
  content: toEditor(props.written.body),
  // Its styles stand below: none are put into the page by a script.
  injectCSS: false,
  extensions: [
    StarterKit.configure({ ...without, strike: false, link: false, heading: { levels: [1, 2, 3] } }),
    TableKit.configure({ table: { resizable: false } }),
    TextAlign.configure({ types: ['heading', 'paragraph'], alignments: ['left', 'center', 'right'] }),
    SizedImage.configure({ allowBase64: true }),
  ],
  editorProps: {
    attributes: { 'aria-label': props.name, role: 'textbox', 'aria-multiline': 'true', class: 'written' },
  },
  onFocus: () => (target.put = insert),
  onUpdate: () => keep(),
  onBlur: () => keepNow(),
})
function insert(text: string) {
  editor.value?.chain().focus().insertContent({ type: 'text', text }).run()
}
function keepNow() {
  if (!editor.value) return
  const body = fromEditor(editor.value.getJSON())
  const text = JSON.stringify(body)
  if (text === given) return
  given = text
  emit('change', { ...props.written, body }, 'written')
}
const PAUSE = 400
const keep = useDebounceFn(keepNow, PAUSE)
watch(
  () => props.written.body,
  body => {
    const text = JSON.stringify(body)
    if (text === given) return
    given = text
    editor.value?.commands.setContent(toEditor(body), { emitUpdate: false })
  },
)
onBeforeUnmount(() => {
  keepNow()
  if (target.put === insert) target.put = null
})
function edge(key: 'header' | 'footer', text: string) {
  const { [key]: _before, ...others } = props.written
  emit('change', text === '' ? others : { ...others, [key]: text }, key)
}
function number(isNumbered: boolean) {
  const { numbered: _before, ...others } = props.written
  emit('change', isNumbered ? { ...others, numbered: true } : others, 'numbered')
}
</script>

<template>
  <div class="written-editor">
    <label
      >Above each page
      <v-text-field
        :model-value="written.header ?? ''"
        maxlength="500"
        :aria-label="`${name}: above each page`"
        @input="edge('header', inputText($event))"
    /></label>
    <WrittenTools
      v-if="editor"
      :editor="editor"
    />
    <EditorContent
      v-if="editor"
      class="sheet paper"
      :editor="editor"
      @keydown.stop
    />
    <div class="row-flex below">
      <label
        >Below each page
        <v-text-field
          :model-value="written.footer ?? ''"
          maxlength="500"
          :aria-label="`${name}: below each page`"
          @input="edge('footer', inputText($event))"
      /></label>
      <v-checkbox
        :model-value="written.numbered === true"
        label="Number the pages"
        @update:model-value="number($event === true)"
      />
    </div>
  </div>
</template>

<style scoped>
.written-editor {
  display: grid;
  gap: 10px;
}
.paper {
  padding: 20px 26px;
  max-height: 65vh;
  overflow: auto;
}
.below label {
  flex: 1 1 300px;
}
.below {
  flex-wrap: wrap;
  align-items: end;
  gap: 4px 14px;
}
.paper :deep(.written) {
  position: relative;
  min-height: 180px;
  outline: none;
  white-space: break-spaces;
  overflow-wrap: break-word;
  font-variant-ligatures: none;
}
.paper :deep(.ProseMirror-gapcursor) {
  display: none;
  position: absolute;
  width: 20px;
  border-top: 1px solid currentcolor;
}
.paper :deep(.ProseMirror-focused .ProseMirror-gapcursor) {
  display: block;
}
.paper:focus-within {
  outline: 2px solid var(--copper);
  outline-offset: 1px;
}
.paper :deep(p) {
  margin: 0 0 6px;
}
.paper :deep(h1) {
  font-size: 20px;
}
.paper :deep(h2) {
  font-size: 17px;
}
.paper :deep(h3) {
  font-size: 15px;
}
.paper :deep(ul),
.paper :deep(ol) {
  padding-left: 24px;
  margin: 0 0 6px;
}
.paper :deep(table) {
  border-collapse: collapse;
  width: 100%;
  margin: 6px 0 10px;
}
.paper :deep(td),
.paper :deep(th) {
  border: 1px solid var(--line);
  padding: 4px 8px;
  vertical-align: top;
  text-align: start;
}
.paper :deep(.selectedCell) {
  background: rgb(128 128 128 / 15%);
}
.paper :deep(img) {
  max-width: 100%;
  height: auto;
}
.paper :deep(.ProseMirror-selectednode) {
  outline: 2px solid var(--copper);
}
</style>
