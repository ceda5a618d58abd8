<script setup lang="ts">
import {
  mdiArrowExpandHorizontal,
  mdiChevronLeft,
  mdiChevronRight,
  mdiClose,
  mdiPrinterOutline,
} from '@mdi/js'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** One response as it is read, beside the others or in full width. */
const isWide = defineModel<boolean>('wide', { required: true })
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const draft = useDraft()
const collect = useCollect()
const id = computed(() => props.id)
const { data: open, error } = await useAsyncData(
  'response',
  () => callApi(API.loadResponse, { params: { id: id.value } }),
  { server: false, watch: [id, () => collect.changes] },
)
const isCorrecting = ref(false)
const mayCorrect = computed(
  () => draft.may('act') && open.value?.withdrawnAt === null && open.value.binnedAt === null,
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
        :icon="mdiChevronLeft"
        name="Previous response"
        keys="K"
        @click="collect.stepped = -1"
      />
      <IconButton
        :icon="mdiChevronRight"
        name="Next response"
        keys="J"
        @click="collect.stepped = 1"
      />
      <IconButton
        :icon="mdiArrowExpandHorizontal"
        :name="isWide ? 'Beside the others' : 'Full width'"
        @click="isWide = !isWide"
      />
      <IconButton
        :icon="mdiPrinterOutline"
        name="To be printed"
        :href="`/printed/${id}`"
        target="_blank"
      />
      <IconButton
        :icon="mdiClose"
        name="Close"
        keys="Esc"
        @click="emit('close')"
      />
    </div>
    <RefusalAlert
      v-if="error"
      :refusal="`The response could not be fetched: ${refusalOf(error).sentence}`"
    />
    <template v-else-if="open">
      <p class="quiet small">
        Sent {{ readableDay(open.sentAt) }}, {{ readableTime(open.sentAt) }}, begun
        {{ readableDay(open.begunOn) }}, version {{ open.release }}{{ saySender(open)
        }}<template v-if="open.correctedAt">, corrected {{ readableDay(open.correctedAt) }}</template>
      </p>
      <p
        v-if="open.binnedAt"
        class="risk"
      >
        In the bin since {{ readableDay(open.binnedAt) }}
      </p>
      <p
        v-else-if="open.withdrawnAt"
        class="risk"
      >
        Withdrawn {{ readableDay(open.withdrawnAt) }}
      </p>
      <div
        v-if="!open.binnedAt"
        class="row-flex acts"
      >
        <TrayChoice
          :response="id"
          :tray="open.tray"
        />
        <v-btn
          v-if="mayCorrect"
          @click="isCorrecting = true"
          >Correct …</v-btn
        >
      </div>
      <ResponseDocuments
        :response="id"
        :documents="open.documents"
        :may-act="mayCorrect"
      />
      <ResponsePayment
        v-if="open.payment"
        :response="id"
        :payment="open.payment"
        :may-act="mayCorrect"
      />
      <template v-if="open.turns.length > 0 || open.history.length > 0">
        <ResponseTurns
          v-if="open.turns.length > 0"
          :turns="open.turns"
        />
        <ResponseHistory :history="open.history" />
      </template>
      <ResponseNotes
        :response="id"
        :history="open.history"
      />
      <ResponseLines :lines="open.lines" />
    </template>
    <LazyCorrectDialog
      v-if="isCorrecting"
      :id="id"
      @close="isCorrecting = false"
    />
  </aside>
</template>

<style scoped>
.one {
  background: var(--paper);
  border-left: 1px solid var(--line);
  padding: 16px 20px;
  overflow-y: auto;
}
.row-flex {
  flex-wrap: nowrap;
  gap: 2px;
}
.acts {
  gap: 8px;
  margin: 8px 0;
}
</style>
