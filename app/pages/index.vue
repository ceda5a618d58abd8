<script setup lang="ts">
import { bringPatternEngine } from '#core/expressions/patternEngine'
import { useFileDialog } from '@vueuse/core'
import { strToU8, zipSync } from 'fflate'
import { TEMPLATES } from '#core/form/templates'
import type { Form } from '#core/form/definition'
import { API } from '#shared/api/endpoints'
import type { Refusal } from '#shared/api/refusal'
import { callApi, useApi } from '~/api/callApi'
import type { Command } from '~/composables/commands'

bringPatternEngine()
definePageMeta({ middleware: 'designer' })
useHead({ title: 'Forms · Tobbin' })
const api = useApi()
const { data: forms, refresh } = await useAsyncData('forms', () => api(API.listForms))
const title = ref('')
const filing = useTemplateRef('filing')
const words = ref('')
const tag = ref<string | null>(null)
const inArchive = ref(false)
const tags = computed(() => [...new Set((forms.value ?? []).flatMap(f => f.tags))].toSorted())
const found = computed(() =>
  (forms.value ?? []).filter(
    f =>
      f.isArchived === inArchive.value &&
      (!tag.value || f.tags.includes(tag.value)) &&
      hasWords([f.title, f.code, ...f.tags].join(' '), words.value),
  ),
)
/** What is gone can't be exported. */
async function followChange() {
  await refresh()
  chosen.value = chosen.value.filter(id => forms.value?.some(f => f.id === id))
}
/** What the list of commands offers here. */
const commands = (): Command[] => [
  ...(forms.value ?? []).map(f => ({
    words: f.title,
    hint: f.code,
    names: [f.code],
    run: () => void navigateTo(`/forms/${f.id}/write`),
  })),
  ...(isMaker.value ? TEMPLATES : []).map(t => ({
    words: `New form from ${t.title}`,
    hint: '',
    run: () => void create({ definition: t.form }),
  })),
]
const refusal = ref<Refusal | null>(null)
const { user } = useUserSession()
/** Members work with what is shared with them. */
const isMaker = computed(() => user.value?.role !== 'member')

async function create(body: { title: string } | { definition: unknown }) {
  refusal.value = null
  try {
    const { id } = await callApi(API.createForm, { body })
    await navigateTo(`/forms/${id}/write`)
  } catch (error) {
    refusal.value = refusalOf(error)
    await refresh()
  }
}

/** Files are looked at first; nothing is brought in before somebody has seen what it is. */
const looking = shallowRef<File[]>([])
const looks = ref(0)
const definitions = useFileDialog({
  accept: '.json,application/json,.zip,application/zip',
  multiple: true,
  reset: true,
})
definitions.onChange(chosen => {
  looking.value = [...(chosen ?? [])]
  looks.value += 1
})
async function bring(definitions: Form[]) {
  looking.value = []
  if (definitions.length === 1 && definitions[0]) return create({ definition: definitions[0] })
  for (const definition of definitions) {
    try {
      await callApi(API.createForm, { body: { definition } })
    } catch (error) {
      refusal.value = refusalOf(error)
    }
  }
  await refresh()
}

/** Chosen forms as one zip of definition files. */
const chosen = ref<string[]>([])
async function exportChosen() {
  const files: Record<string, Uint8Array> = {}
  for (const id of chosen.value) {
    const { draft } = await callApi(API.loadForm, { params: { id } })
    const name = files[`${draft.code}.form.json`] ? `${draft.code}-${id.slice(0, 8)}` : draft.code
    files[`${name}.form.json`] = strToU8(`${JSON.stringify(draft, null, 2)}\n`)
  }
  download('forms.zip', [zipSync(files).slice().buffer], 'application/zip')
}
</script>

<template>
  <div>
    <TopBar>
      <CommandList
        :commands="commands"
        placeholder="A form by title or code, or a template"
      />
    </TopBar>
    <main class="home">
      <div class="row-flex head">
        <h1>Forms</h1>
        <span class="spread" />
        <form
          v-if="isMaker"
          class="row-flex"
          @submit.prevent="title.trim() && create({ title })"
        >
          <label
            class="hidden-words"
            for="new-title"
            >Title of the new form</label
          >
          <v-text-field
            id="new-title"
            v-model="title"
            class="wide"
            placeholder="Title of a new form"
            maxlength="500"
          />
          <v-btn
            type="submit"
            variant="flat"
            color="primary"
            :disabled="!title.trim()"
          >
            New form
          </v-btn>
        </form>
        <v-btn
          v-if="isMaker"
          @click="definitions.open()"
        >
          Import…
        </v-btn>
        <v-btn
          v-if="chosen.length > 0"
          @click="exportChosen"
        >
          Export {{ chosen.length }} as zip
        </v-btn>
      </div>
      <RefusalAlert
        :refusal="refusal"
        places
      />
      <ImportPanel
        v-if="looking.length > 0"
        :key="looks"
        :files="looking"
        @close="looking = []"
        @bring="bring"
      />
      <OpenTurns />
      <FormFilter
        v-if="(forms ?? []).length > 0"
        v-model:words="words"
        v-model:tag="tag"
        v-model:in-archive="inArchive"
        :tags="tags"
        :archived="(forms ?? []).filter(f => f.isArchived).length"
      />
      <FormFiling
        ref="filing"
        :known="tags"
        @changed="followChange"
        @refused="refusal = refusalOf($event)"
      />
      <div class="sheet">
        <FormTable
          v-if="found.length > 0"
          v-model:chosen="chosen"
          :forms="found"
          @act="(act, form) => filing?.begin(act, form)"
          @tag="tag = $event"
        />
        <v-empty-state
          v-else-if="(forms ?? []).length > 0"
          title="No form like this"
          text="No form goes by these words here; other words, another tag or the archive may have it."
        />
        <v-empty-state
          v-else-if="!isMaker"
          title="No forms yet"
          text="No form is shared with you. Turns that wait for you stand above."
        />
        <v-empty-state
          v-else
          title="No forms yet"
          text="Type a title above and press Enter: the script opens, and every line you type is a question."
        />
      </div>
      <section
        v-if="isMaker"
        class="templates"
        aria-label="Forms to start from"
      >
        <h2>Start from</h2>
        <v-btn
          v-for="t in TEMPLATES"
          :key="t.title"
          variant="plain"
          class="sheet template"
          @click="create({ definition: t.form })"
        >
          <strong>{{ t.title }}</strong><span class="small quiet">{{ t.about }}</span>
        </v-btn>
      </section>
    </main>
  </div>
</template>

<style scoped>
.home {
  max-width: 1080px;
  margin: 0 auto;
  padding: 32px 20px;
  display: grid;
  gap: 20px;
}
.wide {
  width: 240px;
}
.templates {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 10px;
}
.templates h2 {
  grid-column: 1 / -1;
  font-size: 17px;
}
.template :deep(.v-btn__content) {
  display: grid;
  gap: 2px;
  justify-items: start;
  text-align: left;
}
.template {
  justify-content: start;
  padding: 12px 16px;
  cursor: pointer;
}
.template:hover {
  border-color: var(--verdigris);
}
.sheet :deep(th),
.sheet :deep(td) {
  padding: 9px 16px;
}
</style>
