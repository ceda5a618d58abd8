<script setup lang="ts">
import type { PaymentAct, PaymentAsked } from '#shared/api/payments'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** What is to be paid for a response, or was; those who work with it say that it was paid in another way, or pay it back. */
const props = defineProps<{ response: string; payment: PaymentAsked; mayAct: boolean }>()
const collect = useCollect()
const { refusal, busy, attempt } = useRefusable()
const isOpen = computed(() => props.payment.state === 'open' || props.payment.state === 'refused')
const act = (what: PaymentAct['do']) =>
  attempt(async () => {
    await callApi(API.actOnPayment, { params: { id: props.response }, body: { do: what } })
    collect.changes += 1
  })
</script>

<template>
  <section
    class="payment"
    aria-label="Payment"
  >
    <div class="row-flex">
      <span>
        <strong class="num">{{ readableMoney(payment.amount, payment.currency) }}</strong>
        <span
          class="state"
          :class="payment.state === 'paid' ? 'quiet' : 'risk'"
          >{{ PAYMENT_WORDS[payment.state] }}</span
        >
        <span
          v-if="payment.title"
          class="small quiet"
          >· {{ payment.title }}</span
        >
      </span>
      <span class="spread" />
      <template v-if="isOpen">
        <a
          class="small"
          :href="payment.link"
          target="_blank"
          >Where it is paid</a
        >
        <v-btn
          v-if="mayAct"
          :disabled="busy"
          @click="act('paid otherwise')"
          >Was paid otherwise</v-btn
        >
      </template>
      <v-btn
        v-else-if="mayAct && payment.state === 'paid'"
        :disabled="busy"
        @click="act('pay back')"
        >Pay back</v-btn
      >
    </div>
    <RefusalAlert :refusal="refusal" />
  </section>
</template>

<style scoped>
.payment {
  border-block: 1px solid var(--line);
  padding: 8px 0;
  margin: 8px 0;
}
.row-flex {
  gap: 10px;
}
.state {
  margin-inline: 8px 4px;
}
</style>
