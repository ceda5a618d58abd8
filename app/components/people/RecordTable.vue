<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { API } from '#shared/api/endpoints'
import type { RecordLine } from '#shared/api/people'
import { useApi } from '~/api/callApi'

/** What happened in the workspace: who, when, what. Never an answer. */
const PAGE = 50
const api = useApi()
const page = ref(1)
const search = ref('')
const searched = refDebounced(search, 300)
watch(searched, () => (page.value = 1))
const query = computed(() => ({ page: page.value, search: searched.value }))
const { data } = await useAsyncData('record', () => api(API.listRecord, { query: query.value }), {
  watch: [query],
})
const time = (at: string) => `${readableDay(at)}, ${readableTime(at, true)}`
const detailsOf = ({ details }: RecordLine) =>
  Object.entries(details)
    .map(([name, value]) => `${name}: ${value}`)
    .join(' · ')
const HEADERS = [
  { title: 'When', key: 'at', nowrap: true },
  { title: 'Who', key: 'who' },
  { title: 'What', key: 'act' },
  { title: 'About', key: 'about' },
  { title: 'Form', key: 'form' },
  { title: 'From', key: 'source' },
] as const
</script>

<template>
  <section
    class="part"
    aria-label="Record"
  >
    <div class="row-flex">
      <v-text-field
        v-model="search"
        class="search"
        placeholder="Find a person, a thing, an address"
        aria-label="Find in the record"
        maxlength="200"
      />
      <span class="quiet">{{ counted(data?.count ?? 0, 'line') }}, kept for 400 days</span>
    </div>
    <div class="sheet">
      <v-data-table-server
        v-model:page="page"
        :headers="HEADERS"
        :items="data?.lines ?? []"
        :items-length="data?.count ?? 0"
        :items-per-page="PAGE"
        :items-per-page-options="[PAGE]"
        :hide-default-footer="(data?.count ?? 0) <= PAGE"
        disable-sort
      >
        <template #[`item.at`]="{ item }"
          ><span class="quiet">{{ time(item.at) }}</span></template
        >
        <template #[`item.about`]="{ item }"
          >{{ item.about }}
          <span
            v-if="detailsOf(item)"
            class="quiet small"
            >{{ detailsOf(item) }}</span
          ></template
        >
        <template #[`item.source`]="{ item }"
          ><code class="quiet">{{ item.source }}</code></template
        >
      </v-data-table-server>
    </div>
  </section>
</template>

<style scoped>
.part {
  display: grid;
  gap: 12px;
}
.search {
  max-width: 320px;
}
</style>
