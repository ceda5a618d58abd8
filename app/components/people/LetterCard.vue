<script setup lang="ts">
import type { Letter } from '#shared/api/letters'

/** A letter of the simulated post; the links in it can be opened from here. */
const props = defineProps<{ letter: Letter }>()
const parts = computed(() => props.letter.text.split(/(\/(?:key|f|forms)\/[\w?=&/-]+)/))
const isLink = (part: string) => /^\/(?:key|f|forms)\//.test(part)
</script>

<template>
  <article class="sheet letter">
    <p>
      <strong>{{ letter.subject }}</strong>
      <span class="quiet"> to {{ letter.to }}, {{ readableDay(letter.at) }}</span>
    </p>
    <p class="text">
      <template
        v-for="(part, i) in parts"
        :key="i"
        ><NuxtLink
          v-if="isLink(part)"
          :to="part"
          >{{ part }}</NuxtLink
        ><template v-else>{{ part }}</template></template
      >
    </p>
    <p
      v-if="letter.attachments.length > 0"
      class="quiet small"
    >
      With it: {{ letter.attachments.map(a => a.name).join(', ') }}
    </p>
    <p
      v-if="letter.state === 'bounced'"
      class="risk small"
    >
      It came back: {{ letter.said }}
    </p>
  </article>
</template>

<style scoped>
.letter {
  padding: 12px 18px;
  display: grid;
  gap: 4px;
  overflow-wrap: anywhere;
}
.text {
  white-space: pre-line;
}
</style>
