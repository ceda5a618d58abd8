<script setup lang="ts">
import type { OpenedTurn } from '#shared/api/answering'

/** That a response was given back to this turn: why, and what is to be looked at. */
defineProps<{ turn: OpenedTurn }>()
const emit = defineEmits<{ go: [code: string] }>()
</script>

<template>
  <v-alert
    type="warning"
    role="status"
  >
    <strong>This was given back to you:</strong> {{ turn.remark }}
    <div
      v-if="turn.pointed.length > 0"
      class="row-flex"
    >
      <span class="small">It is about</span>
      <v-btn
        v-for="q in turn.pointed"
        :key="q.code"
        variant="text"
        @click="emit('go', q.code)"
      >
        {{ q.label }}
      </v-btn>
    </div>
  </v-alert>
</template>
