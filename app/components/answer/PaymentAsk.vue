<script setup lang="ts">
import type { PaymentAsked } from '#shared/api/payments'

/** What is to be paid for a response that was sent, with the way there. */
defineProps<{ payment: PaymentAsked }>()
</script>

<template>
  <section
    class="ask"
    aria-label="To be paid"
  >
    <p>
      <strong class="num">{{ readableMoney(payment.amount, payment.currency) }}</strong>
      <template v-if="payment.title">, {{ payment.title }}</template>
      <span class="quiet"> · {{ PAYMENT_WORDS[payment.state] }}</span>
    </p>
    <v-btn
      v-if="payment.state === 'open' || payment.state === 'refused'"
      variant="flat"
      color="primary"
      class="big"
      :href="payment.link"
      >{{ payment.state === 'refused' ? 'Try to pay again' : 'Pay now' }}</v-btn
    >
  </section>
</template>

<style scoped>
.ask {
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 16px 18px;
  display: grid;
  gap: 12px;
  justify-items: start;
}
.big {
  min-height: 46px;
  padding: 8px 20px;
}
</style>
