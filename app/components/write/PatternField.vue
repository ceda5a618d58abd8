<script setup lang="ts">
import { patternOf } from '#core/expressions/patterns'

/** A pattern with a place to try it out. */
const props = defineProps<{ pattern: string | undefined; message: string | undefined }>()
const emit = defineEmits<{ set: [values: Record<string, unknown>] }>()
const trial = ref('')
const compiled = computed(() => (props.pattern === undefined ? null : patternOf(props.pattern)))
const outcome = computed(() =>
  compiled.value === null || trial.value === '' ? null : compiled.value.matcher(trial.value).matches(),
)
</script>

<template>
  <div class="pattern">
    <div class="row-flex">
      <v-text-field
        class="code wide"
        :model-value="pattern ?? ''"
        placeholder="e.g. [A-Z]{2} [0-9]{4}"
        aria-label="Pattern"
        spellcheck="false"
        maxlength="500"
        @input="emit('set', { pattern: inputText($event) || null })"
      />
      <template v-if="pattern !== undefined">
        <v-text-field
          v-model="trial"
          placeholder="try an answer"
          aria-label="Try the pattern"
        />
        <span
          v-if="compiled === null"
          class="small fault"
          role="alert"
          >✕ can’t be read</span
        >
        <span
          v-else-if="outcome !== null"
          class="small"
          :class="outcome ? 'proven' : 'fault'"
          role="status"
          >{{ outcome ? '✓ fits' : '✕ does not fit' }}</span
        >
      </template>
    </div>
    <v-text-field
      v-if="pattern !== undefined"
      :model-value="message ?? ''"
      placeholder="What to say when an answer does not fit the pattern"
      aria-label="Message of the pattern"
      @input="emit('set', { patternMessage: inputText($event) || null })"
    />
  </div>
</template>

<style scoped>
.pattern {
  display: grid;
  gap: 4px;
}
.wide {
  min-width: 220px;
}
</style>
