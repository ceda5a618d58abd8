<script setup lang="ts">
import {
  mdiFormatAlignCenter,
  mdiFormatAlignLeft,
  mdiFormatAlignRight,
  mdiFormatBold,
  mdiFormatHeader1,
  mdiFormatHeader2,
  mdiFormatHeader3,
  mdiFormatItalic,
  mdiFormatListBulleted,
  mdiFormatListNumbered,
  mdiFormatUnderline,
  mdiImageOutline,
  mdiRedo,
  mdiTableColumnPlusAfter,
  mdiTableColumnRemove,
  mdiTablePlus,
  mdiTableRemove,
  mdiTableRowPlusAfter,
  mdiTableRowRemove,
  mdiUndo,
} from '@mdi/js'
import type { Editor } from '@tiptap/vue-3'
import { readTemplatePicture } from '~/composables/write/templatePicture'

/** What is done to the text of a template: its formats, lists, tables and pictures. */
const props = defineProps<{ editor: Editor }>()
const { refusal, attempt } = useRefusable()
const chain = () => props.editor.chain().focus()
interface Tool {
  name: string
  icon: string
  run: () => boolean
  isOn?: boolean
}
const headings = [mdiFormatHeader1, mdiFormatHeader2, mdiFormatHeader3]
const levels = [1, 2, 3] as const
const formats = computed((): Tool[] => [
  {
    name: 'Bold',
    icon: mdiFormatBold,
    run: () => chain().toggleBold().run(),
    isOn: props.editor.isActive('bold'),
  },
  {
    name: 'Italic',
    icon: mdiFormatItalic,
    run: () => chain().toggleItalic().run(),
    isOn: props.editor.isActive('italic'),
  },
  {
    name: 'Underlined',
    icon: mdiFormatUnderline,
    run: () => chain().toggleUnderline().run(),
    isOn: props.editor.isActive('underline'),
  },
  ...levels.map((level, i) => ({
    name: `Heading ${level}`,
    icon: headings[i] ?? '',
    run: () => chain().toggleHeading({ level }).run(),
    isOn: props.editor.isActive('heading', { level }),
  })),
  {
    name: 'List',
    icon: mdiFormatListBulleted,
    run: () => chain().toggleBulletList().run(),
    isOn: props.editor.isActive('bulletList'),
  },
  {
    name: 'Numbered list',
    icon: mdiFormatListNumbered,
    run: () => chain().toggleOrderedList().run(),
    isOn: props.editor.isActive('orderedList'),
  },
])
const ALIGNED = [
  ['left', mdiFormatAlignLeft],
  ['center', mdiFormatAlignCenter],
  ['right', mdiFormatAlignRight],
] as const
const places = computed((): Tool[] =>
  ALIGNED.map(([side, icon]) => ({
    name: side === 'center' ? 'Centred' : `To the ${side}`,
    icon,
    run: () => chain().setTextAlign(side).run(),
    isOn: side !== 'left' && props.editor.isActive({ textAlign: side }),
  })),
)
const isInTable = computed(() => props.editor.isActive('table'))
const tables = computed((): Tool[] =>
  isInTable.value
    ? [
        { name: 'Row below', icon: mdiTableRowPlusAfter, run: () => chain().addRowAfter().run() },
        { name: 'Column behind', icon: mdiTableColumnPlusAfter, run: () => chain().addColumnAfter().run() },
        { name: 'Remove the row', icon: mdiTableRowRemove, run: () => chain().deleteRow().run() },
        { name: 'Remove the column', icon: mdiTableColumnRemove, run: () => chain().deleteColumn().run() },
        { name: 'Remove the table', icon: mdiTableRemove, run: () => chain().deleteTable().run() },
      ]
    : [{ name: 'Table', icon: mdiTablePlus, run: () => chain().insertTable(NEW_TABLE).run() }],
)
const NEW_TABLE = { rows: 2, cols: 2, withHeaderRow: false }
const steps = computed((): Tool[] => [
  { name: 'Take back', icon: mdiUndo, run: () => chain().undo().run() },
  { name: 'Once more', icon: mdiRedo, run: () => chain().redo().run() },
])
const chooser = useTemplateRef<{ click: () => void }>('chooser')
const take = (files: File | File[] | null | undefined) =>
  attempt(async () => {
    const file = Array.isArray(files) ? files[0] : files
    if (!file) return
    const picture = await readTemplatePicture(file)
    chain()
      .insertContent({ type: 'image', attrs: { ...picture } })
      .run()
  })
</script>

<template>
  <div>
    <div
      class="tools"
      role="toolbar"
      aria-label="Format"
    >
      <template
        v-for="(group, g) in [steps, formats, places, tables]"
        :key="g"
      >
        <IconButton
          v-for="tool in group"
          :key="tool.name"
          :icon="tool.icon"
          :name="tool.name"
          :aria-pressed="tool.isOn"
          :active="tool.isOn"
          @mousedown.prevent
          @click="tool.run()"
        />
        <v-divider
          vertical
          class="gap"
        />
      </template>
      <IconButton
        :icon="mdiImageOutline"
        name="Picture"
        @click="chooser?.click()"
      />
      <v-file-input
        ref="chooser"
        class="hidden"
        accept="image/png,image/jpeg"
        aria-label="Picture for the template"
        :model-value="null"
        @update:model-value="take"
      />
    </div>
    <RefusalAlert :refusal="refusal" />
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px;
}
.gap {
  margin: 4px;
}
.hidden {
  display: none;
}
</style>
