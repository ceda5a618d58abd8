<script setup lang="ts">
/** The currency of an amount, where there are several: comes only with a form that has them. */
defineProps<{ currencies: readonly string[]; name: string }>()
const currency = defineModel<string>()
const emit = defineEmits<{ left: [] }>()
</script>

<template>
  <v-select
    v-model="currency"
    class="currency"
    :items="[...currencies]"
    :aria-label="name"
    @blur="emit('left')"
  />
</template>

<style scoped>
.currency {
  flex: 0 0 110px;
}
</style>
