<script setup lang="ts">
import type { Look } from '#core/form/look'

/** The pictures of a form's look: a heading over the page, and the logo. */
defineProps<{ look: Look }>()
</script>

<template>
  <img
    v-if="look.heading"
    class="looked-heading looked-picture"
    :src="look.heading.data"
    :alt="look.heading.alt ?? ''"
  />
  <img
    v-if="look.logo"
    class="looked-logo"
    :src="look.logo.data"
    :alt="look.logo.alt ?? ''"
  />
</template>
