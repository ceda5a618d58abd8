<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { paymentDue } from '#core/parties/payment'
import type { Payment } from '#core/form/payment'
import { placeName } from '#core/form/walk'

/** What is to be paid at the end of the form; said of the practice answers, too. */
const draft = useDraft()
const rehearsal = useRehearsal()
const payment = computed(() => draft.form?.payment ?? null)
const last = computed(() => draft.places.findLast(p => p.kind === 'section'))
/** What is money, and known once. */
const amounts = computed(() =>
  draft.places
    .filter(
      p =>
        p.kind === 'question' &&
        p.entryOf === null &&
        (p.node.type === 'money' || (p.node.type === 'value' && p.node.currency !== undefined)),
    )
    .map(p => ({ value: p.code, title: placeName(p) })),
)
const due = computed(() => (rehearsal.filled ? paymentDue(rehearsal.filled) : null))
const put = (set: Payment | null, merge: string) =>
  draft.edit([{ do: 'change', what: 'form', set: { payment: set } }], `form:payment:${merge}`)
/** A part that is empty goes out. */
function change(part: { [K in keyof Payment]?: Payment[K] | undefined }, merge: string) {
  if (!payment.value) return
  const { amount, title, when, completes } = { ...payment.value, ...part }
  const needed = { amount: amount ?? '', title: title ?? '' }
  put({ ...needed, ...(when ? { when } : {}), ...(completes ? { completes } : {}) }, merge)
}
const add = (amount: string) => put({ amount, title: draft.form?.title ?? '' }, 'add')
</script>

<template>
  <section
    class="payment"
    aria-label="Payment"
  >
    <div class="row-flex">
      <h2>Payment</h2>
      <span class="spread" />
      <IconButton
        v-if="payment"
        :icon="mdiClose"
        name="Take the payment away"
        @click="put(null, 'remove')"
      />
    </div>
    <template v-if="!payment">
      <p class="quiet">
        A form can end with paying an amount that it works out.
        <template v-if="amounts.length === 0"
          >It needs a money question, or a calculation with a currency, first.</template
        >
      </p>
      <v-btn
        v-if="amounts[0]"
        class="add"
        @click="add(amounts[0].value)"
        >Ask to be paid</v-btn
      >
    </template>
    <div
      v-else-if="last"
      class="sheet fields"
    >
      <label
        >The amount
        <v-select
          :model-value="payment.amount"
          :items="amounts"
          aria-label="The amount to be paid"
          @update:model-value="change({ amount: $event }, 'amount')"
      /></label>
      <label
        >What for
        <QuotableField
          :model-value="payment.title"
          :place="last"
          aria-label="What is paid for"
          maxlength="500"
          @write="change({ title: $event }, 'title')"
      /></label>
      <RuleField
        words="To be paid when"
        :text="payment.when"
        :place="last"
        part="payment"
        @change="change({ when: $event ?? undefined }, 'when')"
        ><template #none><span class="small quiet">always</span></template></RuleField
      >
      <v-checkbox
        :model-value="payment.completes === true"
        label="A response counts as done only when it is paid"
        @update:model-value="change({ completes: $event ? true : undefined }, 'completes')"
      />
      <p class="small quiet">
        With the practice answers:
        <strong>{{
          due ? readableMoney(due.amount, due.currency) : 'nothing is to be paid'
        }}</strong><template v-if="due?.title">, {{ due.title }}</template>
      </p>
    </div>
  </section>
</template>

<style scoped>
.payment {
  display: grid;
  gap: 10px;
  margin-top: 14px;
}
h2 {
  font-size: 17px;
}
.fields {
  display: grid;
  gap: 12px;
  padding: 14px 18px;
}
.add {
  justify-self: start;
}
</style>
