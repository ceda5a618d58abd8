<script setup lang="ts">
import { mdiPrinterOutline } from '@mdi/js'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** One response as it is read. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const id = computed(() => props.id)
const { data: open, error } = await useAsyncData(
  'response',
  () => callApi(API.loadResponse, { params: { id: id.value } }),
  { server: false, watch: [id] },
)
</script>

<template>
  <aside
    class="one"
    aria-label="One response"
  >
    <div class="row-flex">
      <h2>{{ open ? `Response ${open.number}` : 'One response' }}</h2>
      <span class="spread" />
      <IconButton
        :icon="mdiPrinterOutline"
        name="To be printed"
        :href="`/printed/${id}`"
        target="_blank"
      />
      <v-btn @click="emit('close')"> Close </v-btn>
    </div>
    <RefusalAlert
      v-if="error"
      :refusal="`The response could not be fetched: ${refusalOf(error).sentence}`"
    />
    <template v-else-if="open">
      <p class="quiet small">
        Sent {{ readableDay(open.sentAt) }}, begun {{ readableDay(open.begunOn) }}, version {{ open.release
        }}{{ saySender(open) }}
      </p>
      <p
        v-if="open.withdrawnAt"
        class="risk"
      >
        Withdrawn {{ readableDay(open.withdrawnAt) }}
      </p>
      <template v-if="open.turns.length > 0 || open.history.length > 0">
        <ResponseTurns
          v-if="open.turns.length > 0"
          :turns="open.turns"
        />
        <ResponseHistory :history="open.history" />
      </template>
      <ResponseLines :lines="open.lines" />
    </template>
  </aside>
</template>

<style scoped>
.one {
  background: var(--paper);
  border-left: 1px solid var(--line);
  padding: 20px;
  overflow-y: auto;
}
</style>
