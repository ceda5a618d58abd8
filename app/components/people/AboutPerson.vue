<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { MOST_ABOUT, type AboutPerson } from '#shared/api/aboutPerson'
import type { ActedOn, ResponsesAct } from '#shared/api/workbench'
import { callApi } from '~/api/callApi'

/** Everything about one person in the forms that somebody owns: found, handed out, removed. */
const text = ref('')
/** What was looked for last, and what was found. */
const sought = ref('')
const about = shallowRef<AboutPerson | null>(null)
const selected = ref<string[]>([])
const asking = ref<'strip' | 'delete' | null>(null)
const left = ref<ActedOn['left']>([])
const { say } = useSaid()
const { refusal, busy, attempt } = useRefusable()
const handOut = computed(() => `/api/about-person/hand-out?${new URLSearchParams({ text: sought.value })}`)
const rows = computed(() =>
  (about.value?.found ?? []).map(one => ({
    ...one,
    title: one.form.title,
    state: stateOf(one),
    stands: one.where.join(', '),
  })),
)
function stateOf({ isBinned, isOpen }: { isBinned: boolean; isOpen: boolean }): string {
  if (isBinned) return 'in the bin'
  return isOpen ? 'in progress' : 'done'
}
async function find() {
  const wanted = text.value.trim()
  about.value = await callApi(API.findAboutPerson, { query: { text: wanted } })
  sought.value = wanted
  selected.value = about.value.found.map(one => one.id)
}
/** Each form by itself, as each has its own owners. */
async function actOnSelected(act: ResponsesAct) {
  const forms = Map.groupBy(
    rows.value.filter(r => selected.value.includes(r.id)),
    r => r.form.id,
  )
  let done = 0
  left.value = []
  for (const [id, own] of forms) {
    const body = { ids: own.map(r => r.id), act }
    const acted = await callApi(API.actOnResponses, { params: { id }, body })
    done += acted.done
    left.value.push(...acted.left)
  }
  asking.value = null
  await find()
  say(
    `${counted(done, 'response')} ${act.do === 'strip' ? 'without personal answers now' : 'put into the bin'}.`,
  )
}
const headers = [
  { title: 'Form', key: 'title' },
  { title: 'No.', key: 'number' },
  { title: 'Sent', key: 'sentAt' },
  { title: 'State', key: 'state' },
  { title: 'Stands in', key: 'stands' },
]
</script>

<template>
  <div class="about">
    <h2>Everything about one person</h2>
    <p class="quiet">
      A name, an address or a number is looked for in the answers, turns, letters and histories of all the
      forms that you own. Somebody may stand under several: look for each.
    </p>
    <form
      class="row-flex"
      @submit.prevent="attempt(find)"
    >
      <v-text-field
        v-model="text"
        placeholder="mara@tern.example"
        aria-label="Name, address or number"
        maxlength="200"
        class="text"
      />
      <v-btn
        type="submit"
        :disabled="busy || text.trim().length < 3"
        >Find</v-btn
      >
    </form>
    <RefusalAlert :refusal="asking ? null : refusal" />
    <template v-if="about">
      <p v-if="about.found.length === 0">No response of your forms holds “{{ sought }}”.</p>
      <template v-else>
        <p
          v-if="about.isMore"
          class="risk"
        >
          These are the newest {{ MOST_ABOUT }}; there are more. Remove these first, or look for something
          rarer.
        </p>
        <div class="row-flex">
          <strong>{{ counted(about.found.length, 'response') }} with “{{ sought }}”</strong>
          <span class="spread" />
          <v-btn
            :href="handOut"
            download
            >Hand all out (ZIP)</v-btn
          >
          <v-btn
            :disabled="selected.length === 0"
            @click="asking = 'strip'"
            >Take personal answers out …</v-btn
          >
          <v-btn
            class="fault"
            :disabled="selected.length === 0"
            @click="asking = 'delete'"
            >Delete …</v-btn
          >
        </div>
        <v-data-table
          v-model="selected"
          :headers="headers"
          :items="rows"
          show-select
          :items-per-page="50"
          density="compact"
          class="sheet"
        >
          <template #[`item.title`]="{ item }"
            ><NuxtLink :to="`/forms/${item.form.id}/collect?response=${item.id}`">{{
              item.title
            }}</NuxtLink></template
          >
          <template #[`item.sentAt`]="{ item }">{{ readableDay(item.sentAt) }}</template>
        </v-data-table>
        <div v-if="left.length > 0">
          <p
            v-for="(l, i) in left"
            :key="i"
            class="risk"
          >
            Response {{ l.number }} was left: {{ l.sentence }}
          </p>
        </div>
      </template>
    </template>
    <RemoveDialog
      v-if="asking"
      :what="asking"
      :count="selected.length"
      :busy="busy"
      :refusal="refusal"
      @close="asking = null"
      @remove="attempt(() => actOnSelected($event))"
    />
  </div>
</template>

<style scoped>
.about {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
}
.text {
  flex: 0 1 360px;
}
</style>
