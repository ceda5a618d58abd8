<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { Holder, Right, Share } from '#shared/api/sharing'
import { callApi } from '~/api/callApi'

/** With whom a form is shared, and what each may do; every change counts at once. */
const props = defineProps<{ form: string; title: string }>()
const emit = defineEmits<{ close: [] }>()
const shares = ref<Share[]>([])
const directory = shallowRef<{ holder: Holder; name: string; hint: string }[]>([])
const added = ref<Holder | null>(null)
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
const params = { id: props.form }
const isSame = (a: Holder, b: Holder) => a.kind === b.kind && a.id === b.id
const others = computed(() =>
  directory.value.filter(d => !shares.value.some(s => isSame(s.holder, d.holder))),
)

async function run(what: () => Promise<Share[]>) {
  refusal.value = null
  try {
    shares.value = await what()
  } catch (error) {
    refusal.value = refusalOf(error)
  }
}
const give = (holder: Holder, rights: readonly Right[]) =>
  run(() => callApi(API.shareForm, { params, body: { holder, rights: [...rights] } }))
async function add(holder: Holder | null) {
  added.value = null
  if (holder) await give(holder, ['responses'])
}
onMounted(async () => {
  await run(() => callApi(API.listShares, { params }))
  const { people, teams } = await callApi(API.loadDirectory)
  directory.value = [
    ...teams.map(t => ({
      holder: { kind: 'team' as const, id: t.id },
      name: t.name,
      hint: `team of ${t.members.length}`,
    })),
    ...people.map(p => ({ holder: { kind: 'person' as const, id: p.id }, name: p.name, hint: p.email })),
  ]
})
</script>

<template>
  <PlainDialog
    :title="`Share “${title}”`"
    :width="640"
    @close="emit('close')"
  >
    <v-autocomplete
      :model-value="added"
      :items="others"
      :item-props="d => ({ title: d.name, subtitle: d.hint })"
      item-title="name"
      item-value="holder"
      placeholder="Add a person or a team"
      aria-label="Add a person or a team"
      @update:model-value="add"
    />
    <RefusalAlert :refusal="refusal" />
    <ul class="shares">
      <ShareRow
        v-for="s in shares"
        :key="s.holder.id"
        :share="s"
        @give="give(s.holder, $event)"
      />
    </ul>
    <dl class="small quiet">
      <template
        v-for="(about, right) in RIGHT_ABOUT"
        :key="right"
        ><dt>{{ RIGHT_NAMES[right] }}</dt>
        <dd>{{ about }}</dd></template
      >
    </dl>
    <template #actions>
      <v-btn
        data-first
        @click="emit('close')"
      >
        Close
      </v-btn>
    </template>
  </PlainDialog>
</template>

<style scoped>
.shares {
  list-style: none;
  display: grid;
  gap: 8px;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 2px 10px;
}
</style>
