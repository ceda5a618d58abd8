<script setup lang="ts">
import { mdiContentCopy } from '@mdi/js'
import { API } from '#shared/api/endpoints'
import type { KEY_RIGHTS } from '#shared/api/accessKeys'
import { callApi } from '~/api/callApi'

/** Addresses at which the responses are always as they are now, and keys for programs. */
const props = defineProps<{ form: string }>()
const collect = useCollect()
const { say } = useSaid()
const { refusal, busy, attempt } = useRefusable()
const params = computed(() => ({ id: props.form }))
const { data, error, refresh } = await useAsyncData(
  `keys-${props.form}`,
  () => callApi(API.listAccessKeys, { params: params.value }),
  { server: false },
)
const liveName = ref('')
const keyName = ref('')
const rights = ref<(typeof KEY_RIGHTS)[number][]>(['read'])
const RIGHTS = [
  { value: 'read', title: 'read responses' },
  { value: 'send', title: 'send responses in' },
] as const
/** What was made last: shown this once. */
const made = ref<{ name: string; lines: string[] } | null>(null)
const here = (path: string) => new URL(path, window.location.origin).href
const makeLive = () =>
  attempt(async () => {
    const name = liveName.value
    const body = { kind: 'live' as const, name, filter: collect.filter }
    const { secret } = await callApi(API.makeAccessKey, { params: params.value, body })
    made.value = { name, lines: ['csv', 'json'].map(format => here(`/api/live/${secret}.${format}`)) }
    liveName.value = ''
    await refresh()
  })
const makeKey = () =>
  attempt(async () => {
    const name = keyName.value
    const body = { kind: 'api' as const, name, rights: rights.value }
    const { secret } = await callApi(API.makeAccessKey, { params: params.value, body })
    made.value = { name, lines: [secret] }
    keyName.value = ''
    await refresh()
  })
const revoke = (issued: string) =>
  attempt(async () => {
    await callApi(API.removeAccessKey, { params: { ...params.value, issued } })
    await refresh()
  })
async function copy(line: string) {
  await navigator.clipboard.writeText(line)
  say('Copied.')
}
const headers = [
  { title: 'Name', key: 'name' },
  { title: 'What', key: 'kind' },
  { title: 'Made', key: 'madeAt' },
  { title: 'Used', key: 'uses' },
  { title: 'Revoke', key: 'acts', width: 110 },
]
const kindWords = (key: { kind: 'live' | 'api'; rights: readonly string[] }) =>
  key.kind === 'live' ? 'live address' : `key to ${key.rights.join(' and ')}`
const usedWords = (key: { uses: number; usedAt: string | null }) =>
  key.usedAt === null ? 'not yet' : `${key.uses} times, last ${readableDay(key.usedAt)}`
</script>

<template>
  <section
    class="keys"
    aria-label="Live addresses and keys"
  >
    <h2>Live addresses and keys</h2>
    <RefusalAlert :refusal="refusal ?? (error && refusalOf(error).sentence)" />
    <div class="sheet part">
      <h3>A live address</h3>
      <p class="quiet">
        A spreadsheet or another tool that refreshes itself fetches the responses there, as the filter of the
        table stands now. Whoever has the address reads them. New columns come at the end only.
      </p>
      <form
        class="row-flex"
        @submit.prevent="makeLive"
      >
        <v-text-field
          v-model="liveName"
          placeholder="Season sheet"
          aria-label="Name of the live address"
          maxlength="80"
        />
        <v-btn
          type="submit"
          :disabled="busy || liveName.trim() === ''"
          >Make the address</v-btn
        >
      </form>
    </div>
    <div class="sheet part">
      <h3>A key for programs</h3>
      <p class="quiet">
        What programs can ask is described at <a href="/api/v1/openapi.json">/api/v1/openapi.json</a> (OpenAPI
        3.1).
      </p>
      <form
        class="row-flex"
        @submit.prevent="makeKey"
      >
        <v-text-field
          v-model="keyName"
          placeholder="Works desk"
          aria-label="Name of the key"
          maxlength="80"
        />
        <v-select
          v-model="rights"
          :items="RIGHTS"
          multiple
          aria-label="What it allows"
        />
        <v-btn
          type="submit"
          :disabled="busy || keyName.trim() === '' || rights.length === 0"
          >Make the key</v-btn
        >
      </form>
    </div>
    <v-data-table
      v-if="data && data.length > 0"
      :headers="headers"
      :items="data"
      :items-per-page="-1"
      hide-default-footer
      density="compact"
      class="sheet"
    >
      <template #[`item.kind`]="{ item }">{{ kindWords(item) }}</template>
      <template #[`item.madeAt`]="{ item }"
        >{{ readableDay(item.madeAt) }}<template v-if="item.by">, {{ item.by }}</template></template
      >
      <template #[`item.uses`]="{ item }">{{ usedWords(item) }}</template>
      <template #[`item.acts`]="{ item }"
        ><v-btn
          variant="text"
          class="fault"
          :disabled="busy"
          :aria-label="`Revoke ${item.name}`"
          @click="revoke(item.id)"
          >revoke</v-btn
        ></template
      >
    </v-data-table>
    <PlainDialog
      v-if="made"
      :title="made.name"
      :width="640"
      @close="made = null"
    >
      <p class="quiet">Copy it now: only what it is made from is kept, so it can’t be shown again.</p>
      <div
        v-for="line in made.lines"
        :key="line"
        class="row-flex secret"
      >
        <v-text-field
          :model-value="line"
          readonly
          aria-label="The secret"
          @focus="$event.target.select()"
        />
        <IconButton
          :icon="mdiContentCopy"
          name="Copy"
          @click="copy(line)"
        />
      </div>
    </PlainDialog>
  </section>
</template>

<style scoped>
.keys {
  padding: 16px 20px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
  overflow-y: auto;
}
.part {
  padding: 12px 16px;
  display: grid;
  gap: 8px;
}
.secret {
  flex-wrap: nowrap;
}
h3 {
  font-size: 15px;
}
</style>
