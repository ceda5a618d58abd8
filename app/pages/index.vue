<script setup lang="ts">
import { readableDate } from '#core/expressions/dates'
import type { Refusal } from '#shared/api'

definePageMeta({ middleware: 'designer' })
useHead({ title: 'Forms · Tobbin' })
interface FormBrief { id: string, title: string, code: string, savedAt: string, questions: number, release: number, responses: number }
const { data: forms, refresh } = await useAsyncData('forms', () => useRequestFetch()<FormBrief[]>('/api/forms'))
const title = ref('')
const refusal = ref<Refusal | null>(null)
const file = useTemplateRef('file')

async function create(body: { title: string } | { definition: unknown }) {
  refusal.value = null
  try {
    const { id } = await $fetch<{ id: string }>('/api/forms', { method: 'POST', body })
    await navigateTo(`/forms/${id}/write`)
  }
  catch (error) {
    refusal.value = refusalOf(error)
    await refresh()
  }
}

async function bringIn(event: Event) {
  const input = event.target
  if (!(input instanceof HTMLInputElement) || !input.files?.[0]) return
  const text = await input.files[0].text()
  input.value = ''
  let definition: unknown
  try {
    definition = JSON.parse(text)
  }
  catch (error) {
    refusal.value = { code: 'not-json', sentence: `This file is not JSON: ${error instanceof Error ? error.message : ''}` }
    return
  }
  await create({ definition })
}
</script>

<template>
  <div>
    <TopBar />
    <main class="home">
      <div class="row-flex head">
        <h1>Forms</h1>
        <span class="spread" />
        <form class="row-flex" @submit.prevent="title.trim() && create({ title })">
          <label class="hidden-words" for="new-title">Title of the new form</label>
          <input id="new-title" v-model="title" class="field wide" placeholder="Title of a new form" maxlength="500">
          <button class="action" :disabled="!title.trim()">New form</button>
        </form>
        <button class="plain-button" @click="file?.click()">Import a definition…</button>
        <input ref="file" type="file" accept=".json,application/json" class="hidden-words" tabindex="-1" aria-label="Definition file" @change="bringIn">
      </div>
      <div v-if="refusal" class="sheet wrong" role="alert">
        <p class="fault"><strong>{{ refusal.sentence }}</strong></p>
        <ul v-if="refusal.problems">
          <li v-for="(p, i) in refusal.problems" :key="i"><code>{{ p.path || 'the whole' }}</code> {{ p.sentence }}</li>
        </ul>
      </div>
      <div class="sheet">
        <table v-if="forms && forms.length > 0">
          <thead><tr><th>Form</th><th>Code</th><th class="right">Questions</th><th>Release</th><th class="right">Responses</th><th>Last saved</th></tr></thead>
          <tbody>
            <tr v-for="f in forms" :key="f.id">
              <td><NuxtLink :to="`/forms/${f.id}/write`" class="form-link">{{ f.title }}</NuxtLink></td>
              <td><code class="quiet">{{ f.code }}</code></td>
              <td class="right num">{{ f.questions }}</td>
              <td>{{ f.release > 0 ? `version ${f.release} is open` : 'draft, not yet released' }}</td>
              <td class="right num"><NuxtLink v-if="f.responses > 0" :to="`/forms/${f.id}/collect`">{{ f.responses }}</NuxtLink><span v-else class="quiet">0</span></td>
              <td class="quiet">{{ readableDate(f.savedAt.slice(0, 10)) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-else class="empty">No forms yet. Type a title above and press Enter: the script opens, and every line you type is a question.</p>
      </div>
    </main>
  </div>
</template>

<style scoped>
.home { max-width: 1080px; margin: 0 auto; padding: 32px 20px; display: grid; gap: 20px; }
.wide { width: 240px; }
table { width: 100%; border-collapse: collapse; }
th { text-align: left; font-size: 13px; color: var(--slate); font-weight: 500; }
th, td { padding: 9px 16px; border-bottom: 1px solid var(--line); }
tr:last-child td { border-bottom: 0; }
.right { text-align: right; }
.form-link { color: var(--ink); font-weight: 600; text-decoration: none; }
.form-link:hover { text-decoration: underline; }
.empty { padding: 32px; color: var(--slate); }
.wrong { padding: 16px; display: grid; gap: 8px; max-height: 300px; overflow: auto; }
</style>
