<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { HOOK_MANNERS, PAYMENT_MANNERS } from '#shared/api/deliveries'
import { callApi } from '~/api/callApi'

/** The simulated world outside: the receiver of web hooks, which can be told to fail, and the letters that would have gone out. */
const { refusal, attempt } = useRefusable()
const { data, error, refresh } = await useAsyncData('outside', () => callApi(API.loadOutsideWorld), {
  server: false,
})
const MANNERS = [
  { value: 'takes', title: 'takes them' },
  { value: 'refuses', title: 'refuses (503)' },
  { value: 'silent', title: 'does not answer' },
] as const
const bounces = ref('')
watch(data, world => world && (bounces.value = world.bounces.join(', ')), { immediate: true })
const listed = computed(() => bounces.value.split(/[\s,;]+/).filter(Boolean))
const PAID = [
  { value: 'takes', title: 'takes payments' },
  { value: 'refuses', title: 'refuses them' },
] as const
const behave = (
  hooks: (typeof HOOK_MANNERS)[number] | undefined = data.value?.hooks,
  payments: (typeof PAYMENT_MANNERS)[number] | undefined = data.value?.payments,
) =>
  attempt(async () => {
    if (!hooks || !payments) return
    await callApi(API.tellOutsideWorld, { body: { hooks, payments, bounces: listed.value } })
    await refresh()
  })
</script>

<template>
  <section
    class="part"
    aria-label="World outside"
  >
    <RefusalAlert :refusal="refusal ?? (error ? refusalOf(error) : null)" />
    <template v-if="data">
      <h2>Web hooks</h2>
      <div class="row-flex">
        <span>Addresses that end with <code>.example</code> lead to a simulated receiver. It</span>
        <SegmentedChoice
          :model-value="data.hooks"
          name="How the receiver behaves"
          :options="MANNERS"
          @update:model-value="behave($event)"
        />
        <span class="spread" />
        <v-btn @click="refresh()">Look again</v-btn>
      </div>
      <v-empty-state
        v-if="data.received.length === 0"
        class="sheet"
        title="No web hook yet"
        text="A form that calls one by itself sends it here."
      />
      <article
        v-for="(h, i) in data.received"
        :key="`hook${i}`"
        class="sheet letter"
      >
        <p>
          <strong>{{ h.address }}</strong>
          <span class="quiet small">
            {{ readableDay(h.at) }}, {{ readableTime(h.at) }}, answered with
            {{ h.answered || 'nothing' }}</span
          >
        </p>
        <p>
          <code>{{ h.body }}</code>
        </p>
        <p class="small quiet">{{ h.signature }}</p>
      </article>
      <h2>Payments</h2>
      <div class="row-flex">
        <span>What a form asks to be paid is paid at a simulated service. It</span>
        <SegmentedChoice
          :model-value="data.payments"
          name="How the payment service behaves"
          :options="PAID"
          @update:model-value="behave(undefined, $event)"
        />
      </div>
      <v-empty-state
        v-if="data.paid.length === 0"
        class="sheet"
        title="Nothing was to be paid yet"
        text="A form that ends with paying an amount asks for it here."
      />
      <ul
        v-else
        class="sheet paid"
      >
        <li
          v-for="(p, j) in data.paid"
          :key="`paid${j}`"
        >
          <strong class="num">{{ readableMoney(p.amount, p.currency) }}</strong>
          <span>{{ PAYMENT_WORDS[p.state] }}</span>
          <span class="quiet small">{{ readableDay(p.at) }}, {{ readableTime(p.at) }}</span>
          <span class="quiet small">{{ p.title }}</span>
        </li>
      </ul>
      <h2>Letters about responses</h2>
      <form
        v-if="data"
        class="row-flex"
        @submit.prevent="behave()"
      >
        <span>What goes to</span>
        <v-text-field
          v-model="bounces"
          placeholder="nobody@wherry.example, @gone.example"
          aria-label="Addresses at which letters come back"
          maxlength="2000"
          class="bounces"
        />
        <span>comes back.</span>
        <v-btn type="submit">Keep it so</v-btn>
      </form>
      <v-empty-state
        v-if="data.letters.length === 0"
        class="sheet"
        title="No letter yet"
        text="In the demonstration, what would be posted about responses is kept here."
      />
      <LetterCard
        v-for="(l, k) in data.letters"
        :key="`letter${k}`"
        :letter="l"
      />
    </template>
  </section>
</template>

<style scoped>
.part {
  display: grid;
  gap: 12px;
}
.letter {
  padding: 12px 18px;
  display: grid;
  gap: 4px;
  overflow-wrap: anywhere;
}
.paid {
  list-style: none;
  padding: 6px 18px;
  max-height: 300px;
  overflow-y: auto;
}
.paid li {
  display: grid;
  grid-template-columns: 110px 230px 150px 1fr;
  gap: 12px;
  padding: 4px 0;
}
h2 {
  font-size: 17px;
}
.bounces {
  flex: 0 1 420px;
}
</style>
