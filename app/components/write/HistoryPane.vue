<script setup lang="ts">
import type { Form } from '#core/form/definition'
import { listPlaces, placeName } from '#core/form/walk'
import { API } from '#shared/api/endpoints'
import type { History } from '#shared/api/forms'
import { callApi } from '~/api/callApi'

/** Every save of the draft, with who made it and when; any earlier state can be looked at and brought back. */
const draft = useDraft()
const { sayDone } = useSaid()
const { data, error, refresh } = await useAsyncData(
  `history-${draft.id}`,
  () => callApi(API.loadHistory, { params: { id: draft.id } }),
  { server: false },
)
const state = shallowRef<{ revision: number; form: Form } | null>(null)
const refusal = ref('')
watch(
  () => draft.revision,
  () => void refresh(),
)

const DONE: Record<string, string> = {
  insert: 'added',
  remove: 'deleted',
  move: 'moved',
  change: 'changed',
  replace: 'brought an earlier state back',
}
function words(edits: History['saves'][number]['edits']) {
  const kinds = [...new Set(edits.map(e => e.do))]
  return kinds
    .map(kind => {
      const of = [...new Set(edits.filter(e => e.do === kind).map(e => e.what.replace(/^\w+\//, '')))].filter(
        Boolean,
      )
      return `${DONE[kind] ?? kind} ${of.slice(0, 3).join(', ')}${of.length > 3 ? ' …' : ''}`.trim()
    })
    .join('; ')
}
const when = (at: string) => `${readableDay(at)}, ${readableTime(at, true)}`
async function look(revision: number) {
  refusal.value = ''
  try {
    const { form } = await callApi(API.loadState, { params: { id: draft.id, revision } })
    state.value = { revision, form }
  } catch (cause) {
    refusal.value = refusalOf(cause).sentence
  }
}
function bringBack() {
  if (!state.value || !draft.edit([{ do: 'replace', form: state.value.form }])) return
  sayDone('The earlier state is back.')
  state.value = null
}
const lines = computed(() => (state.value ? listPlaces(state.value.form) : []))
</script>

<template>
  <section
    class="history"
    aria-label="History"
  >
    <RefusalAlert :refusal="error && refusalOf(error)" />
    <RefusalAlert :refusal="refusal" />
    <div
      v-if="state"
      class="sheet state"
    >
      <div class="row-flex">
        <strong>{{ state.revision === 0 ? 'As it began' : `After save ${state.revision}` }}</strong><span
          class="quiet small"
          >{{ lines.filter(p => p.kind === 'question').length }} questions</span
        ><span class="spread" /><v-btn
          variant="flat"
          color="primary"
          @click="bringBack"
        >
          Bring this state back</v-btn
        ><v-btn @click="state = null"> Close </v-btn>
      </div>
      <ol class="small">
        <li
          v-for="p in lines"
          :key="p.address"
          :style="{ paddingLeft: `${p.kind === 'section' ? 0 : 12 + p.groups.length * 12}px` }"
        >
          <b v-if="p.kind === 'section'">{{ p.number }} {{ placeName(p) }}</b
          ><template v-else>{{ p.number }} {{ placeName(p) }}</template>
        </li>
      </ol>
    </div>
    <ul v-if="data">
      <li
        v-for="s in data.saves"
        :key="s.revision"
        class="save"
      >
        <span class="num small">{{ when(s.at) }}</span><span class="small">{{ s.by }}</span
        ><span class="small what">{{ words(s.edits) }}</span
        ><v-btn
          v-if="data.canLook"
          variant="text"
          @click="look(s.revision)"
        >
          Look
        </v-btn>
      </li>
      <li class="save">
        <span class="num small">{{ when(data.begunAt) }}</span><span class="small" /><span class="small what"
          >the form was made</span
        ><v-btn
          v-if="data.canLook"
          variant="text"
          @click="look(0)"
        >
          Look
        </v-btn>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.history {
  overflow-y: auto;
  flex: 1;
  padding: 12px 16px 60px;
  display: grid;
  gap: 10px;
  align-content: start;
  background: var(--paper);
}
.save {
  display: grid;
  grid-template-columns: 170px 110px minmax(0, 1fr) auto;
  gap: 10px;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
  align-items: baseline;
}
.what {
  overflow-wrap: anywhere;
}
.state {
  padding: 12px;
  display: grid;
  gap: 8px;
}
.state ol {
  max-height: 260px;
  overflow-y: auto;
}
</style>
