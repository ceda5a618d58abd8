<script setup lang="ts">
import type { Filled } from '#core/fill/fill'
import type { OwnResponse } from '#shared/api/answering'

/** A response that was sent, opened by its own link: read, kept, and corrected while that is allowed. */
const props = defineProps<{ own: OwnResponse; filled: Filled; token: string }>()
const emit = defineEmits<{ correct: [] }>()
const isCorrected = computed(() => props.own.at !== props.own.sentAt)
</script>

<template>
  <h1 tabindex="-1">Your answers</h1>
  <p>
    Number {{ own.number }}, sent {{ readableDay(own.sentAt) }}, {{ readableTime(own.sentAt, true)
    }}<template v-if="isCorrected"
      >; corrected {{ readableDay(own.at) }}, {{ readableTime(own.at, true) }}</template
    >.
  </p>
  <LazyPaymentAsk
    v-if="own.payment"
    :payment="own.payment"
  />
  <LazyDocumentsOffered
    v-if="own.documents.length > 0"
    :documents="own.documents"
    :token="token"
    sending-key="own-response"
  />
  <div v-if="own.mayCorrect">
    <v-btn
      class="big"
      variant="flat"
      color="primary"
      @click="emit('correct')"
    >
      Correct them
    </v-btn>
  </div>
  <p
    v-else
    class="quiet"
  >
    They can’t be corrected any more.
  </p>
  <LazyResponseCopy
    :filled="filled"
    :number="own.number"
    :sent-at="own.sentAt"
    :token="token"
    sending-key="own-response"
    may-mail
  />
</template>

<style scoped>
.big {
  min-height: 46px;
  padding: 8px 20px;
}
h1:focus {
  outline: none;
}
</style>
