<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { Closing } from '#core/form/definition'
import { FORWARD } from '#core/form/finish'

/** What is said after sending: its title, its text, where it goes on to, and when. */
const props = defineProps<{ closing: Closing; number: number }>()
const emit = defineEmits<{
  change: [closing: Closing, merge: string]
  remove: []
  move: [from: number, to: number]
}>()
const draft = useDraft()
const last = computed(() => draft.places.findLast(p => p.kind === 'section'))
/** A part that is empty goes out of the closing. */
function put(part: Partial<Closing>, merge: string) {
  const { code, ...others } = { ...props.closing, ...part }
  const kept = Object.entries(others).filter(([, v]) => v !== undefined && v !== '')
  emit('change', { code, ...Object.fromEntries(kept) }, merge)
}
/** The address as it is typed; what is none stays there and is said. */
const address = ref('')
watch(
  () => props.closing.forward,
  forward => {
    address.value = forward ?? ''
  },
  { immediate: true },
)
const problem = computed(() => {
  const typed = address.value.trim()
  return typed === '' || FORWARD.test(typed) ? '' : 'An address begins with https:// or, here, with /.'
})
function setForward() {
  const typed = address.value.trim()
  if (!problem.value && typed !== (props.closing.forward ?? '')) put({ forward: typed }, 'forward')
}
</script>

<template>
  <div
    class="closing"
    data-moves
  >
    <div class="row-flex">
      <DragHandle
        :name="`Move closing ${number}`"
        :at="number - 1"
        among="closings"
        @move="(from, to) => emit('move', from, to)"
      />
      <code>{{ closing.code }}</code>
      <v-text-field
        :model-value="closing.title ?? ''"
        placeholder="Thank you"
        :aria-label="`Closing ${number}: title`"
        @input="put({ title: inputText($event) }, 'title')"
      />
      <v-text-field
        v-model="address"
        placeholder="goes on to https://…"
        :aria-label="`Closing ${number}: address to go on to`"
        :error-messages="problem"
        hide-details="auto"
        maxlength="500"
        @change="setForward"
      />
      <IconButton
        :icon="mdiClose"
        name="Remove"
        @click="emit('remove')"
      />
    </div>
    <QuotableField
      v-if="last"
      multiline
      :place="last"
      rows="2"
      :model-value="closing.text ?? ''"
      placeholder="Your answers have been sent."
      :aria-label="`Closing ${number}: text`"
      @write="put({ text: $event }, 'text')"
    />
    <RuleField
      v-if="last"
      words="Said when"
      :text="closing.when"
      :place="last"
      :part="closing.code"
      @change="put({ when: $event ?? undefined }, 'when')"
      ><template #none><span class="small quiet">always</span></template></RuleField
    >
  </div>
</template>

<style scoped>
.closing > .row-flex {
  align-items: start;
}
.closing {
  display: grid;
  gap: 6px;
  border-left: 1px solid var(--line);
  padding-left: 10px;
}
</style>
