<script setup lang="ts">
import type { Frame } from '#core/fill/fill'
import type { Address } from '#core/form/walk'

/** What the answers shown lead to, and why the thing asked about is as it is: in an entry, or in the response as it is now. */
const asked = defineModel<{ address: Address; frame: Frame | null } | null>('asked', { required: true })
const rehearsal = useRehearsal()
</script>

<template>
  <LitLine @why="asked = { address: $event, frame: null }" />
  <WhyPanel
    v-if="asked && rehearsal.filled"
    :address="asked.address"
    :filled="rehearsal.filled"
    :frame="asked.frame ?? rehearsal.filled"
    @close="asked = null"
  />
</template>
