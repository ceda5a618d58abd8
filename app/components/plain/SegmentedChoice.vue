<script setup lang="ts" generic="T extends string">
/** A few choices side by side, one of them taken. Those with an icon are named by it alone. */
const chosen = defineModel<T>({ required: true })
defineProps<{ options: readonly { value: T; title: string; icon?: string }[]; name: string }>()
</script>

<template>
  <v-btn-toggle
    v-model="chosen"
    role="radiogroup"
    :aria-label="name"
  >
    <v-btn
      v-for="o in options"
      :key="o.value"
      :value="o.value"
      role="radio"
      :aria-checked="chosen === o.value"
      :aria-label="o.icon ? o.title : undefined"
      :title="o.icon ? o.title : undefined"
    >
      <v-icon
        v-if="o.icon"
        :icon="o.icon"
      /><template v-else>{{ o.title }}</template>
    </v-btn>
  </v-btn-toggle>
</template>
