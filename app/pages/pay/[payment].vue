<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi, useApi } from '~/api/callApi'

/** The page of the simulated payment service: what is to be paid, and how that went. */
definePageMeta({ layout: 'quiet' })
const params = { payment: String(useRoute().params.payment) }
const api = useApi()
const { data, error } = await useAsyncData(`pay-${params.payment}`, () => api(API.loadPayment, { params }))
const event = useRequestEvent()
if (error.value && event) setResponseStatus(event, error.value.status ?? 500)
useHead({ title: 'Payment', meta: [{ name: 'referrer', content: 'no-referrer' }] })
const { refusal, busy, attempt } = useRefusable()
const isOpen = computed(() => data.value?.state === 'open' || data.value?.state === 'refused')
const pay = () =>
  attempt(async () => {
    data.value = await callApi(API.pay, { params })
  })
</script>

<template>
  <main class="paying">
    <p class="small quiet">Payment service (simulated: no money moves)</p>
    <template v-if="data">
      <h1>
        <span class="num">{{ readableMoney(data.amount, data.currency) }}</span>
      </h1>
      <dl>
        <template v-if="data.title">
          <dt>For</dt>
          <dd>{{ data.title }}</dd>
        </template>
        <dt>Form</dt>
        <dd>{{ data.form }}, response {{ data.number }}</dd>
        <dt>State</dt>
        <dd>
          <span
            role="status"
            :class="{ risk: data.state === 'refused' }"
            >{{ PAYMENT_WORDS[data.state] }}</span
          >
        </dd>
      </dl>
      <RefusalAlert :refusal="refusal" />
      <v-btn
        v-if="isOpen"
        variant="flat"
        color="primary"
        class="big"
        :loading="busy"
        @click="pay"
        >{{ data.state === 'refused' ? 'Try again' : 'Pay' }}</v-btn
      >
      <p
        v-else
        class="quiet"
      >
        Nothing is left to be done here; this page can be closed.
      </p>
    </template>
    <h1 v-else>{{ refusalOf(error).sentence }}</h1>
  </main>
</template>

<style scoped>
.paying {
  max-width: 560px;
  margin: 0 auto;
  padding: 64px 20px;
  display: grid;
  gap: 16px;
  justify-items: start;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 6px 16px;
}
dt {
  color: var(--ink-2);
}
.big {
  min-height: 46px;
  padding: 8px 24px;
}
</style>
