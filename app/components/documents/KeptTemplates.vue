<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { KeptTemplates } from '#shared/api/documents'
import { callApi } from '~/api/callApi'

/** The files that were brought in as templates of the form, to be looked at again. */
const props = defineProps<{ current: string }>()
const draft = useDraft()
const { refusal, attempt } = useRefusable()
const kept = shallowRef<KeptTemplates['templates'] | null>(null)
const load = () =>
  attempt(async () => {
    kept.value = (await callApi(API.listTemplates, { params: { id: draft.id } })).templates
  })
watch(() => props.current, load, { immediate: true })
</script>

<template>
  <RefusalAlert :refusal="refusal" />
  <p
    v-if="kept?.length === 0"
    class="small quiet"
  >
    None yet.
  </p>
  <ul class="kept">
    <li
      v-for="t in kept"
      :key="t.id"
      class="small"
    >
      <a
        :href="`/api/forms/${draft.id}/templates/${t.id}`"
        download
        >{{ t.name }}</a
      >
      <span class="quiet"
        >{{ readableDay(t.at) }}, {{ readableTime(t.at) }}<template v-if="t.by">, {{ t.by }}</template
        ><template v-if="t.id === current">: in use</template></span
      >
    </li>
  </ul>
</template>

<style scoped>
.kept {
  list-style: none;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
}
</style>
