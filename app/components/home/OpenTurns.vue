<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { useApi } from '~/api/callApi'

/** The turns that somebody may take; nothing where there are none. */
const api = useApi()
const { data: turns } = await useAsyncData('open-turns', () => api(API.listOpenTurns))
</script>

<template>
  <section
    v-if="turns && turns.length > 0"
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
        v-for="t in turns"
        :key="t.token"
        :href="`/f/${t.token}`"
        target="_blank"
        :title="`${t.name} · ${t.form}`"
        :subtitle="t.remark ? `Given back: ${t.remark}` : `Open since ${readableDay(t.openedAt)}`"
      >
        <template #append
          ><span class="small quiet">{{ t.isMine ? 'for you' : 'for anybody' }}</span></template
        >
      </v-list-item>
    </v-list>
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
