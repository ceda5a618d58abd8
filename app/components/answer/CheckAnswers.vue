<script setup lang="ts">
import { describeFilled } from '#core/fill/describeResponse'
import type { Filled } from '#core/fill/fill'
import type { Refusal } from '#shared/api/refusal'

/** A look at all answers before they are sent. */
const props = defineProps<{
  filled: Filled
  mayChange: (section: number) => boolean
  refusal: Refusal | null
  busy: boolean
  /** The response is handed on, not sent. */
  isTurn: boolean
  /** Something is signed with it. */
  signs: boolean
}>()
const emit = defineEmits<{ change: [section: number]; back: []; send: [] }>()
const lines = computed(() =>
  describeFilled(props.filled).filter(l => l.state !== 'unasked' && l.type !== 'hidden'),
)
/** How a place is called that the server names by its path: as it is asked here. */
const nameOf = (path: string): string => lines.value.find(l => l.path === path)?.label ?? path
const sendText = computed(() => {
  if (props.busy) return 'Sending …'
  const sending = props.isTurn ? 'Hand on' : 'Send'
  return props.signs ? `Sign and ${sending.toLowerCase()}` : sending
})
</script>

<template>
  <h1 tabindex="-1">Check your answers</h1>
  <v-alert
    v-if="refusal"
    type="error"
  >
    <strong>{{ refusal.sentence }}</strong>
    <ul v-if="refusal.problems">
      <li
        v-for="(p, i) in refusal.problems"
        :key="i"
      >
        {{ nameOf(p.path) }}: {{ p.sentence }}
      </li>
    </ul>
  </v-alert>
  <AnswerLines :lines="lines">
    <template #heading="{ line }">
      <v-btn
        v-if="mayChange(line.section)"
        variant="text"
        @click="emit('change', line.section)"
      >
        Change<span class="hidden-words"> {{ line.heading }}</span>
      </v-btn>
    </template>
  </AnswerLines>
  <slot />
  <div class="row-flex foot">
    <v-btn
      class="big"
      @click="emit('back')"
    >
      Back</v-btn
    ><span class="spread" /><v-btn
      variant="flat"
      color="primary"
      class="big"
      :disabled="busy"
      @click="emit('send')"
    >
      {{ sendText }}
    </v-btn>
  </div>
</template>

<style scoped>
.foot {
  margin-top: 36px;
}
.big {
  min-height: 46px;
  padding: 8px 20px;
}
h1:focus {
  outline: none;
}
@media (max-width: 480px) {
  .foot .v-btn--variant-flat {
    flex: 1;
    justify-content: center;
  }
}
</style>
