<script setup lang="ts">
import type { ResponseDetails } from '#shared/api/responses'

/** The turns that a response went through, and what was posted about it. */
defineProps<{
  turns: ResponseDetails['turns']
  givenBack: ResponseDetails['givenBack']
  messages: ResponseDetails['messages']
}>()
const waits = (to: readonly string[]) => (to.length > 0 ? `, waits for ${to.join(', ')}` : '')
</script>

<template>
  <div class="turns">
    <h3>Turns</h3>
    <ol>
      <li
        v-for="t in turns"
        :key="t.openedAt"
        class="small"
      >
        <strong>{{ t.name }}</strong>{{ ' ' }}
        <span
          v-if="t.handedOffAt"
          class="quiet"
          >handed on {{ readableDay(t.handedOffAt) }}</span
        >
        <template v-else
          ><span class="quiet">open since {{ readableDay(t.openedAt) }}{{ waits(t.to) }}</span>
          {{ ' ' }}
          <a
            v-if="t.token"
            :href="`/f/${t.token}`"
            target="_blank"
            >open its page</a
          ></template
        >
        <em v-if="t.remark"> given back: {{ t.remark }}</em>
      </li>
    </ol>
    <p
      v-for="g in givenBack"
      :key="g.at"
      class="small"
    >
      {{ readableDay(g.at) }}: {{ g.from }} gave it back to {{ g.to }}: “{{ g.remark }}”
    </p>
    <FoldedPart
      v-if="messages.length > 0"
      :title="`${counted(messages.length, 'message')} (kept here, not sent: there is no mail server)`"
    >
      <p
        v-for="(m, i) in messages"
        :key="i"
      >
        {{ readableDay(m.at) }} to {{ m.to }}: {{ m.subject }}
      </p>
    </FoldedPart>
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
