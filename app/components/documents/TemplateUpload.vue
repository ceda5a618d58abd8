<script setup lang="ts">
import type { BroughtFile } from '#core/form/documents'
import { API } from '#shared/api/endpoints'
import type { TemplateProblemTold } from '#shared/api/documents'
import { sendBlob } from '~/api/callApi'

/** Brings a file in as a template; all that is wrong with it is told at once, and nothing is kept then. */
defineProps<{ words: string }>()
const emit = defineEmits<{ brought: [template: BroughtFile] }>()
const draft = useDraft()
const { refusal, busy, attempt } = useRefusable()
const problems = shallowRef<{ file: string; found: readonly TemplateProblemTold[] } | null>(null)
const PARTS: Record<TemplateProblemTold['part'], string> = {
  body: '',
  header: 'in the header',
  footer: 'in the footer',
  notes: 'in a foot note',
}

/** The file is read against the draft as the server has it. */
function bring(file: File) {
  problems.value = null
  return attempt(async () => {
    await draft.flush()
    const parts = { params: { id: draft.id }, query: { name: file.name.slice(0, 200) } }
    const { template, problems: found } = await sendBlob(API.bringTemplate, parts, file)
    if (template) emit('brought', template)
    else problems.value = { file: file.name, found }
  })
}
const chosen = (files: File | File[] | null | undefined) => {
  const file = Array.isArray(files) ? files[0] : files
  return file ? bring(file) : undefined
}
</script>

<template>
  <div class="upload">
    <label
      >{{ words }}
      <v-file-input
        accept=".docx"
        :model-value="null"
        :loading="busy"
        :disabled="busy"
        :aria-label="words"
        placeholder="A .docx file"
        @update:model-value="chosen"
    /></label>
    <RefusalAlert :refusal="refusal" />
    <v-alert
      v-if="problems"
      type="error"
    >
      <strong>{{ problems.file }} was not kept: {{ counted(problems.found.length, 'mistake') }} in it</strong>
      <ol class="problems">
        <li
          v-for="(p, i) in problems.found"
          :key="i"
        >
          {{ p.sentence }} <span class="quiet">{{ PARTS[p.part] }}</span>
          <p class="small">
            …{{ p.before }}<mark>{{ p.marked }}</mark
            >{{ p.after }}…
          </p>
          <p
            v-if="p.near"
            class="small"
          >
            Is <code>{{ p.near }}</code> meant?
          </p>
        </li>
      </ol>
      Mend it in your word processor and bring it in again.
    </v-alert>
  </div>
</template>

<style scoped>
.upload {
  display: grid;
  gap: 10px;
}
label {
  max-width: 340px;
}
mark {
  background: none;
  color: var(--madder);
  font-weight: 600;
}
.problems {
  margin: 6px 0;
  padding-left: 20px;
  display: grid;
  gap: 8px;
  overflow-wrap: anywhere;
}
</style>
