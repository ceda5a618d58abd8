<script setup lang="ts">
import { codeFromLabel, freeCode } from '#core/form/codes'
import type { Delivery } from '#core/form/deliveries'
import { newAct } from './deliveryWords'

/** What a form does by itself, in its order; tried out on the practice answers. */
const draft = useDraft()
const deliveries = computed(() => draft.form?.deliveries ?? [])
const put = (next: readonly Delivery[], merge: string) =>
  draft.edit(
    [{ do: 'change', what: 'form', set: { deliveries: next.length > 0 ? next : null } }],
    `form:${merge}`,
  )
const added = ref<string | null>(null)
const email = computed(
  () => draft.places.find(p => p.kind === 'question' && p.node.type === 'email')?.code ?? null,
)
function add() {
  const code = freeCode(codeFromLabel('by itself'), new Set(deliveries.value.map(d => d.code)))
  added.value = code
  put(
    [...deliveries.value, { code, title: '', on: 'done', act: newAct('message', null, email.value) }],
    'deliveries',
  )
}
const stack = useTemplateRef('stack')
function move(from: number, to: number) {
  const moved = deliveries.value[from]
  if (!moved || to < 0 || to >= deliveries.value.length) return
  put(deliveries.value.toSpliced(from, 1).toSpliced(to, 0, moved), 'deliveries')
  void nextTick(() => stack.value?.querySelectorAll<HTMLElement>('.handle')[to]?.focus())
}
</script>

<template>
  <section
    ref="stack"
    class="deliveries"
    aria-label="What happens by itself"
    @keydown.stop
  >
    <p class="quiet">
      What happens to a response without anybody’s doing: a confirmation, a word to the yard, a call to
      another program, a tray. It is released with the form, and proven like its rules.
    </p>
    <v-empty-state
      v-if="deliveries.length === 0"
      title="Nothing happens by itself yet"
      text="Add what is to happen when a response is sent, handed on, done, corrected, or put into a tray."
    />
    <DeliveryEditor
      v-for="(d, i) in deliveries"
      :key="d.code"
      :delivery="d"
      :number="i + 1"
      :is-new="added === d.code"
      @change="(delivery, merge) => put(deliveries.toSpliced(i, 1, delivery), `${merge}${i}`)"
      @remove="put(deliveries.toSpliced(i, 1), 'deliveries')"
      @move="move"
    />
    <v-btn
      class="add"
      @click="add"
      >Add what happens by itself</v-btn
    >
    <PaymentFields />
  </section>
</template>

<style scoped>
.deliveries {
  display: grid;
  gap: 14px;
  align-content: start;
  min-height: 0;
  overflow-y: auto;
  padding: 18px 20px 60px;
}
.add {
  justify-self: start;
}
</style>
