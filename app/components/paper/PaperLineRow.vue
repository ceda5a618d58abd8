<script setup lang="ts">
import type { PaperLine } from '#core/paper/paperForm'

/** One thing on a paper form: its condition, its words, and where it is answered. */
defineProps<{ line: PaperLine }>()
</script>

<template>
  <li
    class="entry"
    :class="line.kind"
    :style="{ '--depth': line.depth }"
  >
    <span class="number">{{ line.number }}</span>
    <div>
      <p
        v-if="line.when"
        class="when"
      >
        Only if {{ line.when }}:
      </p>
      <FormattedText
        v-if="line.kind === 'note'"
        :text="line.label"
      />
      <p
        v-else
        class="label"
      >
        {{ line.label }}
        <span
          v-if="line.blank && !line.isRequired"
          class="quiet small"
          >{{ line.requiredWhen ? `(needed if ${line.requiredWhen})` : '(may be left blank)' }}</span
        >
      </p>
      <p
        v-if="line.help"
        class="small quiet"
      >
        {{ line.help }}
      </p>
      <PaperBlank
        v-if="line.blank"
        :blank="line.blank"
      />
      <p
        v-for="(words, i) in line.goOn"
        :key="i"
        class="when"
      >
        {{ words }}
      </p>
    </div>
  </li>
</template>

<style scoped>
.entry {
  display: grid;
  grid-template-columns: 52px minmax(0, 1fr);
  break-inside: avoid;
  padding-inline-start: calc(var(--depth) * 18px);
}
.group {
  break-after: avoid;
}
.label {
  font-weight: 600;
}
.label .small {
  font-weight: 400;
}
.when {
  font-style: italic;
}
.number {
  font-variant-numeric: tabular-nums;
}
</style>
