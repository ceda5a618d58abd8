<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { TurnInInbox } from '#shared/api/inbox'
import { useApi } from '~/api/callApi'

/** The turns that wait longest for somebody; nothing where there are none. */
const MOST_SHOWN = 5
const api = useApi()
const { data: inbox } = await useAsyncData('open-turns', () =>
  api(API.listInbox, { query: { size: MOST_SHOWN } }),
)
const stateOf = ({ remark, openedAt, dueOn, isOverdue }: TurnInInbox) => {
  if (remark) return `Given back: ${remark}`
  if (dueOn === null) return `Open since ${readableDay(openedAt)}`
  return isOverdue ? `Was due ${readableDay(dueOn)}` : `Due ${readableDay(dueOn)}`
}
</script>

<template>
  <section
    v-if="inbox && inbox.count > 0"
    class="turns"
    aria-labelledby="turns-to-take"
  >
    <h2 id="turns-to-take">Turns to take</h2>
    <!-- Its rows are links: a list would have to hold items. -->
    <v-list
      role="group"
      aria-labelledby="turns-to-take"
      class="sheet"
      lines="two"
    >
      <v-list-item
        v-for="t in inbox.rows"
        :key="t.id"
        :href="`/f/${t.id}`"
        target="_blank"
        :title="`${t.name} · ${t.form} · ${t.response}`"
        :subtitle="stateOf(t)"
      >
        <template #append
          ><span class="small quiet">{{
            t.waitsFor === 'anybody' ? 'for anybody' : 'for you'
          }}</span></template
        >
      </v-list-item>
    </v-list>
    <NuxtLink
      to="/inbox"
      class="small"
      >{{ inbox.count > inbox.rows.length ? `All ${inbox.count} in the inbox` : 'Open the inbox' }}</NuxtLink
    >
  </section>
</template>

<style scoped>
.turns {
  display: grid;
  gap: 10px;
}
h2 {
  font-size: 17px;
}
</style>
