<script setup lang="ts">
import type { ResponseLine } from '#core/fill/describeResponse'
import { linesByHeading } from '#core/fill/linesByHeading'

/** Answers to be read, question by question; a section's heading may have something beside it. */
const props = defineProps<{ lines: readonly ResponseLine[] }>()
defineSlots<{ heading?: (scope: { line: ResponseLine }) => unknown }>()
const blocks = computed(() => linesByHeading(props.lines))
</script>

<template>
  <div class="sheet">
    <template
      v-for="{ first, lines: own } in blocks"
      :key="first.path"
    >
      <div
        v-if="first.heading"
        class="head-line"
      >
        <h2>{{ first.heading }}</h2>
        <slot
          name="heading"
          :line="first"
        />
      </div>
      <h3
        v-if="first.entry"
        class="entry-line"
      >
        {{ first.entry }}
      </h3>
      <dl>
        <div
          v-for="l in own"
          :key="l.path"
          class="line"
        >
          <dt>{{ l.label }}</dt>
          <dd :class="{ quiet: l.state === 'blank' }">
            <template v-if="l.state === 'blank'">left blank</template>
            <AnswerWords
              v-else
              :line="l"
            />
          </dd>
        </div>
      </dl>
    </template>
  </div>
</template>

<style scoped>
.sheet {
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
