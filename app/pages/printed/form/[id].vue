<script setup lang="ts">
import { layOutPaper } from '#core/paper/paperForm'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** An empty form on paper, to be filled with a pen: the draft, or a version that was released (`?version=2`). */
definePageMeta({ middleware: 'designer', layout: 'quiet' })
const route = useRoute()
const id = String(route.params.id)
const number = Number(route.query.version ?? 0)
const { data, error } = await useAsyncData(
  `paper ${id} ${number}`,
  async () => {
    const loaded = await callApi(API.loadForm, { params: { id } })
    const revision = loaded.releases.find(r => r.number === number)?.revision
    if (number === 0) return { form: loaded.draft, isThere: true }
    if (revision === undefined || revision === null) return { form: null, isThere: false }
    return { form: (await callApi(API.loadState, { params: { id, revision } })).form, isThere: true }
  },
  { server: false, deep: false },
)
const form = computed(() => data.value?.form ?? null)
const sections = computed(() => (form.value ? layOutPaper(form.value) : []))
useHead({ title: () => (form.value ? `${form.value.title}, on paper` : 'A form on paper') })
</script>

<template>
  <main class="paper">
    <RefusalAlert
      v-if="error"
      :refusal="`The form could not be fetched: ${refusalOf(error).sentence}`"
    />
    <RefusalAlert
      v-else-if="data && !data.isThere"
      :refusal="`There is no version ${number} of this form whose state is known.`"
    />
    <template v-else-if="form">
      <PrintedHead :title="form.title" />
      <p class="quiet small">
        {{ number === 0 ? 'Draft' : `Version ${number}` }}. Answer from top to bottom; where an answer says
        where to go, leave out what lies between.
      </p>
      <section
        v-for="part in sections"
        :key="part.number"
        :aria-label="part.title"
      >
        <h2>{{ part.number }} {{ part.title }}</h2>
        <p
          v-if="part.by.length > 0"
          class="small quiet"
        >
          Filled in by: {{ part.by.join(', ') }}
        </p>
        <p
          v-if="part.when"
          class="when"
        >
          Only if {{ part.when }}:
        </p>
        <ol>
          <PaperLineRow
            v-for="line in part.lines"
            :key="line.key"
            :line="line"
          />
        </ol>
        <p
          v-for="(words, i) in part.goOn"
          :key="i"
          class="when"
        >
          {{ words }}
        </p>
      </section>
      <p class="end">End</p>
    </template>
    <v-skeleton-loader
      v-else
      type="article"
      aria-label="The form is being fetched"
    />
  </main>
</template>

<style scoped>
.paper {
  max-width: 760px;
  margin: 0 auto;
  padding: 32px 20px 60px;
  display: grid;
  gap: 12px;
}
h2 {
  font-size: 16px;
  margin: 16px 0 4px;
  border-bottom: 1px solid currentcolor;
  break-after: avoid;
}
ol {
  display: grid;
  gap: 14px;
  margin-top: 10px;
}
.when {
  font-style: italic;
}
.end {
  text-align: center;
}
@media print {
  .paper {
    padding: 0;
  }
}
</style>
