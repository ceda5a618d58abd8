<script setup lang="ts">
import type { Refusal } from '#shared/api/refusal'
import type { ResponseTable } from '#shared/api/responses'

/** A message to whoever sent the responses, at an address that each of them gives. */
const props = defineProps<{
  count: number
  columns: ResponseTable['columns']
  busy: boolean
  refusal: Refusal | string | null
}>()
const emit = defineEmits<{ close: []; post: [message: { to: string; subject: string; text: string }] }>()
const addresses = computed(() =>
  props.columns.filter(c => c.type === 'email').map(c => ({ value: c.code, title: c.label })),
)
const to = ref(addresses.value[0]?.value ?? '')
const subject = ref('')
const text = ref('')
const isWhole = computed(() => to.value !== '' && subject.value.trim() !== '' && text.value.trim() !== '')
const example = computed(() => props.columns.find(c => c.type === 'text')?.code)
/** How a quote is written. */
const quoted = (code: string) => `{{ ${code} }}`
</script>

<template>
  <PlainDialog
    :title="`Message to ${counted(count, 'respondent')}`"
    :width="560"
    @close="emit('close')"
  >
    <RefusalAlert :refusal="refusal" />
    <p v-if="addresses.length === 0">
      No question of this form asks for an e-mail address: there is nowhere to write to.
    </p>
    <template v-else>
      <label class="field"
        >To the address under
        <v-select
          v-model="to"
          :items="addresses"
          aria-label="To the address under"
      /></label>
      <LabelledField
        v-model="subject"
        label="Subject"
        required
      />
      <label class="field"
        >Text
        <v-textarea
          v-model="text"
          rows="6"
          aria-label="Text"
          maxlength="10000"
      /></label>
      <p
        v-if="example"
        class="small quiet"
      >
        Answers are quoted by their code, as in <code>{{ quoted(example) }}</code>. Your name stands below.
      </p>
    </template>
    <template #actions>
      <v-btn @click="emit('close')">Leave it</v-btn
      ><v-btn
        variant="flat"
        color="primary"
        :disabled="busy || !isWhole"
        @click="emit('post', { to, subject, text })"
        >Post it</v-btn
      >
    </template>
  </PlainDialog>
</template>

<style scoped>
.field {
  display: grid;
  gap: 4px;
  font-size: 14px;
}
</style>
