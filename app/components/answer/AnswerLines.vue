<script setup lang="ts">
import type { ResponseLine } from '#core/fill/describeResponse'

/** Answers to be read, question by question; a section's heading may have something beside it. */
defineProps<{ lines: readonly ResponseLine[] }>()
defineSlots<{ heading?: (scope: { line: ResponseLine }) => unknown }>()
</script>

<template>
  <dl class="sheet">
    <template
      v-for="l in lines"
      :key="l.path"
    >
      <div
        v-if="l.heading"
        class="head-line"
      >
        <h2>{{ l.heading }}</h2>
        <slot
          name="heading"
          :line="l"
        />
      </div>
      <h3
        v-if="l.entry"
        class="entry-line"
      >
        {{ l.entry }}
      </h3>
      <div class="line">
        <dt>{{ l.label }}</dt>
        <dd :class="{ quiet: l.state === 'blank' }">
          <template v-if="l.state === 'blank'">left blank</template>
          <AnswerWords
            v-else
            :line="l"
          />
        </dd>
      </div>
    </template>
  </dl>
</template>

<style scoped>
dl {
  padding: 8px 20px 14px;
}
.head-line {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  padding: 16px 0 4px;
}
.head-line h2 {
  font-size: 17px;
}
.line {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
  padding: 8px 0;
  border-bottom: 1px dotted var(--line);
}
dd {
  font-weight: 600;
  overflow-wrap: anywhere;
}
dd.quiet {
  font-weight: 400;
  font-style: italic;
}
.entry-line {
  font-size: 15px;
  padding: 10px 0 0;
  color: var(--slate);
}
@media (max-width: 480px) {
  .line {
    grid-template-columns: 1fr;
    gap: 2px;
  }
}
</style>
