<script setup lang="ts">
import { compareRows } from '#core/lists/difference'
import type { ChoiceList } from '#core/form/choiceLists'
import type { Edit } from '#core/form/edits'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** Lists that the workspace keeps for all forms: brought in, shared, and brought to all forms that follow them. */
const props = defineProps<{ list: ChoiceList | null }>()
const emit = defineEmits<{ taken: [code: string] }>()
const draft = useDraft()
const { data: shared, refresh } = await useAsyncData('shared-lists', () => callApi(API.listSharedLists), {
  server: false,
})
const { say } = useSaid()
const refused = ref('')
const busy = ref(false)
const free = computed(() =>
  (shared.value ?? []).filter(s => !(draft.form?.lists ?? []).some(l => l.shared === s.code)),
)
const own = computed(() => shared.value?.find(s => s.code === props.list?.shared) ?? null)
const others = computed(() => (own.value?.usedBy ?? []).filter(u => u.id !== draft.id))
/** The workspace's rows of the list in view, looked at to say what differs. */
const theirs = shallowRef<ChoiceList | null>(null)
const difference = computed(() =>
  theirs.value && props.list ? compareRows(theirs.value.rows, props.list.rows) : null,
)
const differs = computed(
  () =>
    difference.value !== null &&
    (difference.value.added.length > 0 ||
      difference.value.changed.length > 0 ||
      difference.value.missing.length > 0 ||
      difference.value.clashing.length > 0 ||
      difference.value.reordered ||
      JSON.stringify(theirs.value?.columns ?? []) !== JSON.stringify(props.list?.columns ?? [])),
)
watch(
  () => [props.list?.shared, own.value?.revision] as const,
  async ([code]) => {
    theirs.value = code ? await loadList(code) : null
  },
  { immediate: true },
)

// Whom a change touches is asked when there is one.
watch(differs, now => {
  if (now) void refresh()
})

async function attempt(run: () => Promise<string>) {
  busy.value = true
  try {
    refused.value = ''
    const done = await run()
    if (done) say(done)
    await refresh()
  } catch (cause) {
    refused.value = refusalOf(cause).sentence
  }
  busy.value = false
}
const bring = (code: string) =>
  attempt(async () => {
    const list = await loadList(code)
    const taken = new Set((draft.form?.lists ?? []).map(l => l.code))
    const node = { ...list, code: taken.has(list.code) ? `${list.code}_shared` : list.code, shared: code }
    if (!draft.edit([{ do: 'insert', into: 'lists', at: draft.form?.lists?.length ?? 0, node }]))
      return draft.refused ?? ''
    emit('taken', node.code)
    return `“${list.title ?? code}” is here, and follows the workspace.`
  })
const loadList = async (code: string) => (await callApi(API.loadSharedList, { params: { code } })).list
const save = (list: ChoiceList, code: string, base: number) =>
  callApi(API.saveSharedList, { params: { code }, body: { base, from: draft.id, list } })
const share = (list: ChoiceList) =>
  attempt(async () => {
    await save(list, list.code, 0)
    draft.edit([{ do: 'change', what: `list/${list.code}`, set: { shared: list.code } }])
    return `“${list.title ?? list.code}” is kept for all forms now.`
  })
const publish = (list: ChoiceList) =>
  attempt(async () => {
    const { changed } = await save(list, list.shared ?? list.code, own.value?.revision ?? 0)
    return changed.length === 0 ? 'Kept for all forms.' : `Kept, and brought to ${changed.join(', ')}.`
  })
const take = (list: ChoiceList) =>
  attempt(async () => {
    const known = theirs.value
    if (!known) return ''
    const edits: Edit[] = [
      {
        do: 'change',
        what: `list/${list.code}`,
        set: { title: known.title ?? null, columns: known.columns ?? null },
      },
      { do: 'splice', what: `list/${list.code}`, at: 0, remove: list.rows.length, rows: known.rows },
    ]
    return draft.edit(edits) ? 'As the workspace has it.' : (draft.refused ?? '')
  })
/** Where a change would be brought. */
const reach = computed(() => {
  if (others.value.length === 0) return 'the workspace'
  return others.value.length === 1 ? 'that form too' : `all ${others.value.length} forms`
})
const leave = (list: ChoiceList) =>
  draft.edit([{ do: 'change', what: `list/${list.code}`, set: { shared: null } }])
const counts = computed(() => {
  if (!difference.value) return ''
  const { added, changed, clashing, missing, reordered } = difference.value
  const changes = changed.length + clashing.length
  return [
    added.length > 0 ? `${added.length} new` : '',
    changes > 0 ? `${changes} changed` : '',
    missing.length > 0 ? `${missing.length} gone` : '',
    reordered ? 'another order' : '',
  ]
    .filter(Boolean)
    .join(', ')
})
</script>

<template>
  <div class="shared small">
    <template v-if="list">
      <v-btn
        v-if="!list.shared"
        variant="text"
        :disabled="busy"
        @click="share(list)"
      >
        Share this list with all forms
      </v-btn>
      <template v-else-if="own">
        <p>
          This list is kept for all forms<template v-if="others.length > 0">
            and used by
            <template
              v-for="(u, i) in others"
              :key="u.id"
              >{{ i > 0 ? ', ' : ''
              }}<NuxtLink :to="`/forms/${u.id}/write?view=lists`">{{ u.title }}</NuxtLink
              ><template v-if="u.releases.length > 0">
                (version {{ u.releases.join(', ') }} keeps its rows)</template
              ></template
            ></template
          >.
        </p>
        <template v-if="differs">
          <p class="risk">Changed here: {{ counts || 'its columns' }}.</p>
          <v-btn
            variant="text"
            :disabled="busy"
            @click="publish(list)"
          >
            Bring the change to
            {{ reach }}
          </v-btn>
          <v-btn
            variant="text"
            :disabled="busy"
            @click="take(list)"
          >
            Take the workspace’s rows instead
          </v-btn>
        </template>
        <v-btn
          variant="text"
          @click="leave(list)"
        >
          Stop following it
        </v-btn>
      </template>
    </template>
    <template v-if="free.length > 0">
      <p class="quiet">Of the workspace:</p>
      <v-btn
        v-for="s in free"
        :key="s.code"
        variant="text"
        :disabled="busy"
        :title="s.usedBy.map(u => u.title).join(', ')"
        @click="bring(s.code)"
      >
        + {{ s.title }} <span class="num">{{ s.rows }}</span>
      </v-btn>
    </template>
    <RefusalAlert :refusal="refused" />
  </div>
</template>

<style scoped>
.shared {
  display: grid;
  gap: 4px;
  justify-items: start;
  border-top: 1px solid var(--line);
  padding-top: 8px;
  margin-top: 6px;
}
</style>
