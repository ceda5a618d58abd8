<script setup lang="ts">
import type { ResponseDetails } from '#shared/api/responses'

/** The steps and letters of a response, one by one. */
defineProps<{
  history: ResponseDetails['history']
  /** Letters without what stands in them: their links are for whom they were posted to. */
  isOnPaper?: boolean
}>()
</script>

<template>
  <div>
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
          v-if="h.text && !isOnPaper"
          class="quiet"
        >
          {{ h.text }}
        </p>
        <p
          v-if="h.attachments.length > 0"
          class="quiet"
        >
          With it: {{ h.attachments.join(', ') }}
        </p>
        <p
          v-if="h.said"
          class="risk"
        >
          {{ h.said }}
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
  </div>
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
