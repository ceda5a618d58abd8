<script setup lang="ts">
import { MESSAGES, type FormMessages, type MessageKind } from '#core/form/messages'

/** Own words for what is said of a wrong answer; what stands in an empty field is what is said without. */
const props = defineProps<{ kinds: readonly MessageKind[]; messages: FormMessages | undefined }>()
const emit = defineEmits<{ change: [messages: FormMessages | null, merge: string] }>()
function put(kind: MessageKind, text: string) {
  const { [kind]: _, ...others } = props.messages ?? {}
  const next: FormMessages = text === '' ? others : { ...others, [kind]: text }
  emit('change', Object.keys(next).length > 0 ? next : null, `message:${kind}`)
}
</script>

<template>
  <div class="messages">
    <template
      v-for="kind in kinds"
      :key="kind"
    >
      <span class="small quiet">{{ MESSAGES[kind].name }}</span>
      <v-text-field
        :model-value="messages?.[kind] ?? ''"
        :placeholder="MESSAGES[kind].builtIn"
        :aria-label="`What is said: ${MESSAGES[kind].name}`"
        @input="put(kind, inputText($event).trimStart())"
      />
    </template>
  </div>
</template>

<style scoped>
.messages {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 4px 10px;
  align-items: center;
}
</style>
