<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** One response on paper: its answers, its turns and all that happened to it. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ ready: [title: string] }>()
const { data: open, error } = await useAsyncData(
  `printed ${props.id}`,
  () => callApi(API.loadResponse, { params: { id: props.id } }),
  { server: false },
)
watch(open, one => one && emit('ready', `${one.form}, response ${one.number}`), { immediate: true })
</script>

<template>
  <article class="paper">
    <RefusalAlert
      v-if="error"
      :refusal="`The response could not be fetched: ${refusalOf(error).sentence}`"
    />
    <template v-else-if="open">
      <PrintedHead :title="open.form" />
      <p class="quiet">
        Response {{ open.number }}, sent {{ readableDay(open.sentAt) }}, begun
        {{ readableDay(open.begunOn) }}, version {{ open.release }}{{ saySender(open)
        }}<template v-if="open.withdrawnAt">, withdrawn {{ readableDay(open.withdrawnAt) }}</template>
      </p>
      <ResponseLines :lines="open.lines" />
      <template v-if="open.turns.length > 0 || open.history.length > 0">
        <ResponseTurns
          v-if="open.turns.length > 0"
          :turns="open.turns"
        />
        <h2>History</h2>
        <HistoryLines
          :history="open.history"
          is-on-paper
        />
      </template>
    </template>
    <v-skeleton-loader
      v-else
      type="article"
      aria-label="The response is being fetched"
    />
  </article>
</template>

<style scoped>
.paper {
  max-width: 760px;
  margin: 0 auto;
  padding: 32px 20px 60px;
  display: grid;
  gap: 12px;
}
h2 {
  font-size: 16px;
  margin-top: 12px;
}
@media print {
  .paper {
    padding: 0;
  }
  /* Each response begins a page. */
  .paper + .paper {
    break-before: page;
  }
  .paper :deep(dl > div),
  .paper :deep(li) {
    break-inside: avoid;
  }
}
</style>
