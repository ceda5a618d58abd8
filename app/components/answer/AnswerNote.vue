<script setup lang="ts">
import type { Frame } from '#core/fill/fill'
import { quotedText, quotedWith } from '#core/fill/quote'
import type { PlaceOf } from '#core/form/walk'

/** Text among questions. Only a text with marks of formatting loads what formats it. */
const props = defineProps<{ place: PlaceOf<'note'>; frame: Frame; lit: boolean }>()
const Formatted = defineAsyncComponent(() => import('./FormattedText.vue'))
const isFormatted = computed(() => /[*_`[\]#>]|^\s*(?:[-+]|\d+\.)\s/m.test(props.place.node.text))
/** What is quoted is never read as formatting. */
const escaped = (quote: string) => quote.replaceAll(/[!-/:-@[-`{-~]/g, '\\$&').replaceAll('\n', ' ')
</script>

<template>
  <div
    class="note"
    :class="[place.node.tone ?? 'advice', { lit }]"
    :role="place.node.tone === 'warning' ? 'note' : undefined"
  >
    <Formatted
      v-if="isFormatted"
      :text="quotedWith(frame, place.node.text, place, escaped)"
    />
    <p
      v-else
      class="plain-text"
    >
      {{ quotedText(frame, place.node.text, place) }}
    </p>
  </div>
</template>

<style scoped>
.note {
  padding: 12px 16px;
  font-size: 15px;
}
.plain-text {
  white-space: pre-line;
}
.note.plain {
  padding: 0;
}
.note.advice {
  background: var(--woad-wash);
}
.note.warning {
  background: var(--weld-wash);
  border: 1px solid var(--weld);
}
.note.lit {
  outline: 2px dashed var(--verdigris);
  outline-offset: 4px;
}
</style>
