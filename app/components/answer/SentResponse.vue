<script setup lang="ts">
import type { ClosingMessage } from '#core/fill/closing'
import type { Sent } from '#shared/api/answering'

/** What is said when a response was sent. */
defineProps<{ message: ClosingMessage; sent: Sent | null; canRepeat: boolean }>()
const whole = (path: string) => `${window.location.origin}${path}`
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <h1 tabindex="-1">{{ message.title }}</h1>
  <p class="text">{{ message.text }}</p>
  <p
    v-if="sent"
    class="small quiet"
  >
    Number {{ sent.number }}, sent {{ readableDay(sent.sentAt) }}, {{ readableTime(sent.sentAt, true) }}
  </p>
  <LazyPaymentAsk
    v-if="sent?.payment"
    :payment="sent.payment"
  />
  <p
    v-if="sent?.link"
    class="own"
  >
    Should it be given back to you, you find it at your own link. Keep it:
    <a :href="sent.link">{{ whole(sent.link) }}</a>
  </p>
  <p
    v-else-if="sent?.own"
    class="own"
  >
    Something to correct? Your answers stay open to you at your own link. Keep it:
    <a :href="sent.own">{{ whole(sent.own) }}</a>
  </p>
  <GoingOn
    v-if="message.forward"
    :address="message.forward"
  />
  <div v-else-if="canRepeat">
    <v-btn
      class="big"
      @click="emit('again')"
    >
      Answer once more
    </v-btn>
  </div>
</template>

<style scoped>
.text {
  white-space: pre-line;
}
.own {
  overflow-wrap: anywhere;
}
.big {
  min-height: 46px;
  padding: 8px 20px;
}
h1:focus {
  outline: none;
}
</style>
