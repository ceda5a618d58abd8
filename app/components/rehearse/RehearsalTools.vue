<script setup lang="ts">
import { mdiRestart } from '@mdi/js'

/** What acts on the practice answers as a whole: likely ones, kept sets, starting afresh. */
const emit = defineEmits<{ afresh: [] }>()
</script>

<template>
  <AnswerSets />
  <IconButton
    :icon="mdiRestart"
    name="Start afresh"
    keys="Alt N"
    aria-keyshortcuts="Alt+N"
    @click="emit('afresh')"
  />
</template>
