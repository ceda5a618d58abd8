<script setup lang="ts">
import { describeFilled } from '#core/fill/describeResponse'
import { framesOf } from '#core/fill/draw'
import type { Filled } from '#core/fill/fill'
import { callLink } from '~/api/callLink'

/** One's own copy of what was sent: to be read, kept as a file, printed, or posted to an address that the answers give. */
const props = defineProps<{
  filled: Filled
  number: number
  sentAt: string
  token: string
  sendingKey: string
  mayMail: boolean
}>()
const isShown = ref(false)
const { busy, said, attempt } = useAttempt()
const lines = computed(() =>
  describeFilled(props.filled).filter(l => l.state !== 'unasked' && l.type !== 'hidden'),
)
const addresses = computed(() => {
  const asked = props.mayMail ? props.filled.plan.questions.filter(q => q.place.node.type === 'email') : []
  const given = asked.flatMap(q => framesOf(props.filled, q).map(frame => frame.values[q.slot]))
  return [...new Set(given.flatMap(a => (typeof a === 'string' ? [a] : [])))]
})
const save = () =>
  attempt(async () => {
    const { makeResponsePdf } = await import('~/browser/responsePdf')
    const { title } = props.filled.plan.form
    const about = `Number ${props.number}, sent ${readableDay(props.sentAt)}, ${readableTime(props.sentAt, true)}`
    const pdf = await makeResponsePdf({ title, about, lines: lines.value })
    download(`${props.filled.plan.form.code}-${props.number}.pdf`, [pdf], 'application/pdf')
    return 'Saved as PDF.'
  })
const post = (to: string) =>
  attempt(async () => {
    const body = { key: props.sendingKey, to }
    await callLink('mailCopy', { params: { token: props.token }, body })
    return `A copy is on its way to ${to}.`
  })
async function print() {
  isShown.value = true
  await nextTick()
  window.print()
}
</script>

<template>
  <section
    class="copy"
    aria-label="Your copy"
  >
    <div class="row-flex unprinted">
      <v-btn
        variant="text"
        :aria-expanded="isShown"
        @click="isShown = !isShown"
      >
        {{ isShown ? 'Hide my answers' : 'Show my answers' }}
      </v-btn>
      <v-btn
        variant="text"
        :disabled="busy"
        @click="save"
      >
        Save as PDF
      </v-btn>
      <v-btn
        variant="text"
        @click="print"
      >
        Print
      </v-btn>
      <v-btn
        v-for="to in addresses"
        :key="to"
        variant="text"
        :disabled="busy"
        @click="post(to)"
      >
        Post a copy to {{ to }}
      </v-btn>
    </div>
    <p
      role="status"
      class="small unprinted"
    >
      {{ said }}
    </p>
    <AnswerLines
      v-if="isShown"
      :lines="lines"
    />
  </section>
</template>

<style scoped>
.copy {
  display: grid;
  gap: 8px;
}
.row-flex {
  flex-wrap: wrap;
  margin-inline-start: -10px;
}
@media print {
  .unprinted {
    display: none;
  }
}
</style>
