<script setup lang="ts">
import MarkdownIt from 'markdown-it'

/** Light formatting as CommonMark has it; HTML in the text stays text. */
const props = defineProps<{ text: string }>()
const markdown = new MarkdownIt('commonmark', { html: false, breaks: true })
// Pictures stand in the form itself: one from elsewhere would tell its site who reads this.
const OWN_PICTURE = /^data:image\/(?:png|jpeg|gif|webp);base64,/
const drawPicture = markdown.renderer.rules.image
markdown.renderer.rules.image = (tokens, at, ...rest) => {
  const token = tokens[at]
  const isOwn = OWN_PICTURE.test(String(token?.attrGet('src') ?? ''))
  if (isOwn && drawPicture) return drawPicture(tokens, at, ...rest)
  return markdown.utils.escapeHtml(token?.content ?? '')
}
const html = computed(() => markdown.render(props.text))
</script>

<template>
  <!-- Made by the formatter alone: it escapes whatever stands in the text. -->
  <div
    class="formatted"
    v-html="html"
  />
</template>

<style scoped>
.formatted :deep(p + p),
.formatted :deep(ul),
.formatted :deep(ol) {
  margin-top: 8px;
}
.formatted :deep(ul) {
  list-style: disc;
  padding-inline-start: 20px;
}
.formatted :deep(ol) {
  list-style: decimal;
  padding-inline-start: 22px;
}
.formatted :deep(:is(h1, h2, h3, h4)) {
  font-size: 17px;
}
</style>
