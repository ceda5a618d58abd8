<script setup lang="ts">
import { codeFromLabel, freeCode } from '#core/form/codes'
import { provideTagTarget } from '~/composables/write/tagTarget'
import type { DocumentTemplate, FormDocument } from '#core/form/documents'

/** The documents that are made of a response, each of a template that was written in a word processor. */
const draft = useDraft()
const documents = computed(() => draft.form?.documents ?? [])
const put = (next: readonly FormDocument[], merge: string) =>
  draft.edit(
    [{ do: 'change', what: 'form', set: { documents: next.length > 0 ? next : null } }],
    `form:${merge}`,
  )
provideTagTarget()
const write = () => add({ written: { body: [{ is: 'paragraph', runs: [] }] } }, 'New document')
function add(template: DocumentTemplate, title: string) {
  const code = freeCode(codeFromLabel(title), new Set(documents.value.map(d => d.code)))
  put([...documents.value, { code, title, on: 'done', fileName: title, template }], 'documents')
}
</script>

<template>
  <section
    class="documents"
    aria-label="Documents"
    @keydown.stop
  >
    <div class="papers">
      <p class="quiet">
        A document is written in a word processor and brought in as .docx, or written here, with tags in
        double braces where answers come. It is released with the form, and its clauses are proven like rules.
      </p>
      <v-empty-state
        v-if="documents.length === 0"
        title="No document yet"
        text="A works order, a permit, a letter: bring a .docx in, or write one here."
      />
      <DocumentEditor
        v-for="(d, i) in documents"
        :key="d.code"
        :document="d"
        :number="i + 1"
        @change="(document, merge) => put(documents.toSpliced(i, 1, document), `${merge}${i}`)"
        @remove="put(documents.toSpliced(i, 1), 'documents')"
      />
      <TemplateUpload
        words="Bring a document in"
        @brought="add($event, $event.name.replace(/\.docx$/i, ''))"
      />
      <div>
        <v-btn @click="write">Write one here</v-btn>
      </div>
    </div>
    <TagList :unfolded="documents.length > 0" />
  </section>
</template>

<style scoped>
.documents {
  display: grid;
  grid-template-rows: minmax(0, 1fr) auto;
  min-height: 0;
}
.papers {
  display: grid;
  gap: 14px;
  align-content: start;
  overflow-y: auto;
  padding: 18px 20px 40px;
}
</style>
