<script setup lang="ts">
import { listMeaningChanges, meaningKey, newCodeEdits, type MeaningChange } from '#core/lists/meanings'
import { API } from '#shared/api/endpoints'
import type { ReleaseBrief } from '#shared/api/releases'
import { callApi } from '~/api/callApi'

/** Codes of the draft that mean something else than in the version before: each gets a new code, or is said to mean the same where only its words changed. */
const props = defineProps<{ version: ReleaseBrief }>()
const same = defineModel<string[]>('same', { required: true })
const isOpen = defineModel<boolean>('isOpen', { required: true })
const draft = useDraft()
const { sayDone } = useSaid()
const { data: before } = await useAsyncData(
  () => `meanings-${props.version.id}`,
  async () => {
    const { revision } = props.version
    if (revision === null) return null
    return (await callApi(API.loadState, { params: { id: draft.id, revision } })).form
  },
  { server: false, deep: false },
)
const changes = computed(() =>
  before.value && draft.form ? listMeaningChanges(before.value, draft.form) : [],
)
const isSame = (change: MeaningChange) => !change.isCertain && same.value.includes(meaningKey(change))
watchEffect(() => {
  isOpen.value = changes.value.some(change => !isSame(change))
})

function renew(change: MeaningChange) {
  if (!draft.form) return
  if (draft.edit(newCodeEdits(draft.form, change)))
    sayDone(
      `“${change.option ?? change.code}” has a new code. What was answered under the old one stays apart.`,
    )
}
function keep(change: MeaningChange) {
  same.value = [...same.value, meaningKey(change)]
}
</script>

<template>
  <div v-if="changes.length > 0">
    <h3>Codes that mean something else</h3>
    <p class="small quiet">
      Under one code stands one thing, in all versions: columns, figures and rules go by it.
    </p>
    <ul>
      <li
        v-for="change in changes"
        :key="meaningKey(change)"
        class="row-flex"
      >
        <span
          v-if="isSame(change)"
          class="proven"
          >✓</span
        >
        <span
          v-else
          class="fault"
          >✕</span
        >
        <span class="told">
          <template v-if="change.option"
            ><code>{{ change.option }}</code> of “{{ change.name }}”</template
          >
          <code v-else>{{ change.code }}</code>
          was {{ change.was }}; it is {{ change.is }} now.
          <span
            v-if="isSame(change)"
            class="quiet"
            >You say that it means the same.</span
          >
        </span>
        <template v-if="!isSame(change)">
          <v-btn @click="renew(change)">Give it a new code</v-btn>
          <v-btn
            v-if="!change.isCertain"
            variant="text"
            @click="keep(change)"
            >It means the same</v-btn
          >
        </template>
      </li>
    </ul>
  </div>
</template>

<style scoped>
h3 {
  font-size: 15px;
  margin-bottom: 6px;
}
ul {
  display: grid;
  gap: 6px;
}
.told {
  flex: 1 1 320px;
}
</style>
