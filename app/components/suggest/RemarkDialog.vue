<script setup lang="ts">
import { placeName, type Place } from '#core/form/walk'

/** A remark on a row of the script. */
const props = defineProps<{ place: Place }>()
const emit = defineEmits<{ close: [] }>()
const suggestions = useSuggestions()
const { say } = useSaid()
const note = ref('')
const refusal = ref('')
async function remark() {
  refusal.value = ''
  try {
    await suggestions.remark(props.place.address, note.value.trim())
    say('Your remark stands under Suggestions.')
    emit('close')
  } catch (cause) {
    refusal.value = refusalOf(cause).sentence
  }
}
</script>

<template>
  <PlainDialog
    :title="`Remark on ${place.number} ${placeName(place)}`"
    :width="480"
    @close="emit('close')"
  >
    <v-textarea
      v-model="note"
      data-first
      aria-label="Your remark"
      rows="3"
      maxlength="2000"
      @keydown.ctrl.enter="note.trim() && remark()"
    />
    <RefusalAlert :refusal="refusal" />
    <template #actions>
      <v-btn
        variant="flat"
        color="primary"
        :disabled="!note.trim()"
        @click="remark"
        >Remark</v-btn
      ><v-btn @click="emit('close')">Leave it</v-btn>
    </template>
  </PlainDialog>
</template>
