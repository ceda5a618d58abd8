<script setup lang="ts">
import type { Refusal } from '#shared/api/refusal'
import type { ResponsesAct } from '#shared/api/workbench'

type Removal = Extract<ResponsesAct, { do: 'delete' | 'delete for good' | 'strip' }>

/** Asks whether responses, or what is personal in them, are to go, and why. */
const props = defineProps<{
  what: Removal['do']
  count: number
  busy: boolean
  refusal: Refusal | string | null
}>()
const emit = defineEmits<{ close: []; remove: [act: Removal] }>()
const reason = ref('')
const isReasoned = computed(() => props.what !== 'delete for good')
const TITLES: Record<Removal['do'], (count: string) => string> = {
  delete: count => `Delete ${count}?`,
  'delete for good': count => `Delete ${count} for good?`,
  strip: count => `Take the personal answers out of ${count}?`,
}
const TEXTS: Record<Removal['do'], string> = {
  delete:
    'They go into the bin, where an owner can put them back for 30 days. Links to them open nothing any more.',
  'delete for good': 'Their answers, files, history and letters are deleted now. Nobody can bring them back.',
  strip:
    'The answers to questions marked as personal go for good, with their files, letters and links. What else was answered stays for figures. Nobody can bring them back.',
}
function remove() {
  const { what } = props
  emit('remove', what === 'delete for good' ? { do: what } : { do: what, reason: reason.value })
}
</script>

<template>
  <PlainDialog
    :title="TITLES[what](counted(count, 'response'))"
    asks
    :width="480"
    @close="emit('close')"
  >
    <RefusalAlert :refusal="refusal" />
    <p>{{ TEXTS[what] }}</p>
    <LabelledField
      v-if="isReasoned"
      v-model="reason"
      label="Why"
      hint="It stands in the history of each."
      required
    />
    <template #actions>
      <v-btn @click="emit('close')">Leave them</v-btn
      ><v-btn
        class="fault"
        :disabled="busy || (isReasoned && reason.trim() === '')"
        @click="remove"
        >{{ what === 'strip' ? 'Take them out' : 'Delete them' }}</v-btn
      >
    </template>
  </PlainDialog>
</template>
