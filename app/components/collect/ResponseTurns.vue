<script setup lang="ts">
import type { ResponseDetails } from '#shared/api/responses'

/** The turns that a response went through. */
defineProps<{ turns: ResponseDetails['turns'] }>()
const waits = (to: readonly string[]) => (to.length > 0 ? `, waits for ${to.join(', ')}` : '')
const due = (day: string | null) => (day === null ? '' : `, due ${readableDay(day)}`)
</script>

<template>
  <div class="turns">
    <h3>Turns</h3>
    <ol>
      <li
        v-for="t in turns"
        :key="t.id"
        class="small"
      >
        <strong>{{ t.name }}</strong>{{ ' ' }}
        <span
          v-if="t.handedOffAt"
          class="quiet"
          >handed on {{ readableDay(t.handedOffAt) }}</span
        >
        <span
          v-else-if="t.givenBackAt"
          class="quiet"
          >given back {{ readableDay(t.givenBackAt) }}; opens again when it is reached</span
        >
        <template v-else
          ><span class="quiet"
            >open since {{ readableDay(t.openedAt) }}{{ waits(t.to) }}{{ due(t.dueOn) }}</span
          >
          {{ ' ' }}
          <a
            v-if="t.mayOpen"
            :href="`/f/${t.id}`"
            target="_blank"
            >open its page</a
          ></template
        >
        <em v-if="t.remark"> given back: {{ t.remark }}</em>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.turns {
  border-bottom: 1px solid var(--line);
  padding-bottom: 12px;
}
.turns h3 {
  margin: 18px 0 4px;
}
.turns li {
  margin: 2px 0 2px 18px;
}
</style>
