<script setup lang="ts">
import type { FormDocument } from '#core/form/documents'
import { holds } from '#core/parties/deliveries'
import { useDocumentPreview } from '~/composables/write/useDocumentPreview'

/** A document as it would be with the practice answers; what is not answered yet stands out. */
const props = defineProps<{ document: FormDocument }>()
const { content, error } = useDocumentPreview(() => props.document)
const rehearsal = useRehearsal()
const isMade = computed(() => rehearsal.filled === null || holds(rehearsal.filled, props.document))
</script>

<template>
  <div
    class="preview"
    role="region"
    tabindex="0"
    :aria-label="`“${document.title || document.code}” with the practice answers`"
  >
    <p
      v-if="error"
      class="small fault"
      role="alert"
    >
      {{ error }}
    </p>
    <p
      v-if="!isMade"
      class="small quiet"
    >
      With the practice answers it is not made; this is how it would read.
    </p>
    <div
      v-if="content"
      class="page"
    >
      <div
        v-if="content.header.length > 0"
        class="edge"
      >
        <ContentBlocks :blocks="content.header" />
      </div>
      <ContentBlocks :blocks="content.body" />
      <div
        v-if="content.footer.length > 0"
        class="edge foot"
      >
        <ContentBlocks :blocks="content.footer" />
      </div>
    </div>
    <p
      v-else-if="!error"
      class="small quiet"
    >
      Filling it…
    </p>
    <p class="small quiet">
      This shows what it says; how pages are set is the template’s. Highlighted: what is not answered yet.
    </p>
  </div>
</template>

<style scoped>
.preview {
  max-height: 70vh;
  overflow: auto;
  display: grid;
  gap: 8px;
}
.page {
  max-width: 640px;
  padding: 26px 32px;
  border: 1px solid var(--line);
  border-radius: 4px;
  font-size: 13.5px;
  line-height: 1.45;
}
.edge {
  color: var(--slate);
  font-size: 12px;
  margin-bottom: 12px;
}
.foot {
  margin: 16px 0 0;
}
.fault {
  color: var(--madder);
}
</style>
