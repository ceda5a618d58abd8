<script setup lang="ts">
import { refDebounced } from '@vueuse/core'

/** An action that recurs, as an icon: its name is told on hovering or reaching it, and to assistive technology. */
defineProps<{ icon: string; name: string; keys?: string }>()
/** How long somebody rests on it before its name is shown, in milliseconds. */
const REST = 300
const isNear = ref(false)
const isTold = refDebounced(isNear, REST)
</script>

<template>
  <v-btn
    icon
    variant="text"
    :aria-label="name"
    @pointerenter="isNear = true"
    @pointerleave="isNear = false"
    @focus="isNear = true"
    @blur="isNear = false"
  >
    <v-icon :icon="icon" />
    <v-tooltip
      v-if="isTold && isNear"
      model-value
      activator="parent"
      location="bottom"
      :aria-label="name"
      >{{ name }} <kbd v-if="keys">{{ keys }}</kbd></v-tooltip
    >
  </v-btn>
</template>
