<script setup lang="ts">
import type { ContentBlock, ContentParagraph, PictureRun } from '#core/documents/content'

/** What a document says, as it is read: paragraphs, lists and tables. */
defineProps<{ blocks: readonly ContentBlock[] }>()

/** What stands before an item of a list: numbers are counted as they follow each other. */
function signOf(blocks: readonly ContentBlock[], at: number): string {
  const own = blocks[at]
  if (own?.is !== 'paragraph' || own.list === null) return ''
  if (own.list === 'bullets') return '•'
  let number = 1
  for (let i = at - 1; i >= 0; i -= 1) {
    const before = blocks[i]
    if (before?.is !== 'paragraph' || before.list !== 'numbers') break
    if (before.depth === own.depth) number += 1
    if (before.depth < own.depth) break
  }
  return `${number}.`
}
const styleOf = ({ align, depth, list }: ContentParagraph) => ({
  textAlign: align,
  paddingLeft: list === null ? undefined : `${18 * (depth + 1)}px`,
})
const kindOf = ({ level, list }: ContentParagraph) => [
  level > 0 ? `heading heading-${Math.min(level, 3)}` : '',
  list === null ? '' : 'item',
]
/** A picture as an address that holds it. */
function addressOf({ type, bytes }: PictureRun): string {
  let signs = ''
  for (const byte of bytes) signs += String.fromCharCode(byte)
  return `data:${type};base64,${btoa(signs)}`
}
</script>

<template>
  <template
    v-for="(block, i) in blocks"
    :key="i"
  >
    <div
      v-if="block.is === 'table'"
      class="wide"
    >
      <v-table density="compact">
        <tbody>
          <tr
            v-for="(row, r) in block.rows"
            :key="r"
          >
            <td
              v-for="(cell, c) in row"
              :key="c"
              :colspan="cell.span"
            >
              <ContentBlocks :blocks="cell.blocks" />
            </td>
          </tr>
        </tbody>
      </v-table>
    </div>
    <p
      v-else
      :class="kindOf(block)"
      :style="styleOf(block)"
    >
      <span
        v-if="block.list"
        class="sign"
        >{{ signOf(blocks, i) }}</span><template
        v-for="(run, r) in block.runs"
        :key="r"
        ><img
          v-if="run.is === 'picture'"
          :src="addressOf(run)"
          :style="{ width: `${run.width}pt`, maxWidth: '100%' }"
          alt="Picture"
        /><span
          v-else-if="run.is === 'text'"
          :class="{ bold: run.bold, italic: run.italic, underline: run.underline, blank: run.mark }"
          >{{ run.text }}</span
        ><span v-else>{{ run.of === 'page' ? '1' : '…' }}</span></template
      >
    </p>
  </template>
</template>

<style scoped>
p {
  min-height: 0.7em;
  margin: 0 0 5px;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.item {
  position: relative;
}
.sign {
  position: absolute;
  margin-left: -18px;
}
.heading {
  font-weight: 700;
  margin-top: 8px;
}
.heading-1 {
  font-size: 19px;
}
.heading-2 {
  font-size: 16px;
}
.heading-3 {
  font-size: 14px;
}
.bold {
  font-weight: 700;
}
.italic {
  font-style: italic;
}
.underline {
  text-decoration: underline;
}
.blank {
  background: rgb(255 226 120 / 45%);
  border-radius: 3px;
}
.wide {
  overflow-x: auto;
  margin: 4px 0 8px;
}
.wide :deep(table) {
  border-collapse: collapse;
}
td {
  vertical-align: top;
  border: 1px solid var(--line);
  padding: 4px 8px;
}
</style>
