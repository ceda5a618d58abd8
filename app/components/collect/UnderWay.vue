<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { TurnUnderWay } from '#shared/api/releases'
import { callApi } from '~/api/callApi'

/** The responses in progress, and what a new version means for them: they finish on their own. */
const draft = useDraft()
const { data } = await useAsyncData(
  `under-way-${draft.id}`,
  async () => {
    await draft.flush()
    return callApi(API.listUnderWay, { params: { id: draft.id } })
  },
  { server: false },
)
const lines = computed(() => data.value ?? [])
const count = computed(() => lines.value.reduce((sum, line) => sum + line.count, 0))
const CHANGES: Record<TurnUnderWay['change'], string> = {
  same: 'this turn is the same in the draft',
  changed: 'this turn is another in the draft; they see the old one',
  gone: 'this turn is not in the draft any more; they still take it',
}
</script>

<template>
  <div v-if="count > 0">
    <p>
      <strong>{{ counted(count, 'response') }} in progress.</strong>
      {{ count === 1 ? 'It finishes' : 'They finish' }} on the version that
      {{ count === 1 ? 'it' : 'they' }} began:
    </p>
    <ul class="small">
      <li
        v-for="(l, i) in lines"
        :key="i"
      >
        version {{ l.release }}, <strong>{{ l.count }} at {{ l.name }}</strong
        >, the oldest since {{ readableDay(l.since) }}:
        <span :class="{ quiet: l.change === 'same' }">{{ CHANGES[l.change] }}</span>
      </li>
    </ul>
  </div>
</template>

<style scoped>
ul {
  margin: 4px 0 0;
  padding-left: 20px;
}
</style>
