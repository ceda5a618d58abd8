<script setup lang="ts">
import type { ResponseDetails } from '#shared/api/responses'

/** What happened to a response, the oldest first: who, when, what was changed, and what was posted. Only to be read. */
const props = defineProps<{ history: ResponseDetails['history'] }>()
const letters = computed(() => props.history.filter(h => h.kind === 'posted').length)
const happened = computed(() => props.history.length - letters.value)
const title = computed(
  () => `History: ${counted(happened.value, 'step')}, ${counted(letters.value, 'letter')}`,
)
</script>

<template>
  <FoldedPart
    v-if="history.length > 0"
    :title="title"
  >
    <p
      v-if="letters > 0"
      class="small quiet"
    >
      Letters are kept here, not sent: there is no mail server.
    </p>
    <ol>
      <li
        v-for="(h, i) in history"
        :key="i"
        class="small"
        :class="{ letter: h.kind === 'posted' }"
      >
        <span class="num quiet">{{ readableDay(h.at) }} {{ readableTime(h.at) }}</span>
        {{ sayHistory(h) }}<template v-if="h.remark">: “{{ h.remark }}”</template>
        <p
          v-if="h.text"
          class="quiet"
        >
          {{ h.text }}
        </p>
        <p
          v-if="h.filled > 0"
          class="quiet"
        >
          {{ counted(h.filled, 'answer') }} given
        </p>
        <p
          v-for="(c, j) in h.changes"
          :key="j"
        >
          {{ c.label }}: <del>{{ c.before }}</del> → <strong>{{ c.after || 'left blank' }}</strong>
        </p>
      </li>
    </ol>
  </FoldedPart>
</template>

<style scoped>
ol {
  display: grid;
  gap: 8px;
  list-style: none;
  padding: 0;
}
li {
  border-left: 2px solid var(--line);
  padding-left: 8px;
  overflow-wrap: anywhere;
}
.letter {
  border-left-style: dotted;
}
</style>
