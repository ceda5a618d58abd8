<script setup lang="ts">
/** A text field with its label above it, and what it wants below. */
defineProps<{
  label: string
  type?: string
  autocomplete?: string
  hint?: string
  required?: boolean
  inputmode?: 'numeric'
}>()
const text = defineModel<string>({ required: true })
</script>

<template>
  <label class="labelled">
    {{ label }}
    <v-text-field
      v-model="text"
      :type="type ?? 'text'"
      :autocomplete="autocomplete ?? 'off'"
      :required="required"
      :inputmode="inputmode"
      maxlength="200"
    />
    <span
      v-if="hint"
      class="small quiet"
      >{{ hint }}</span
    >
  </label>
</template>

<style scoped>
.labelled {
  display: grid;
  gap: 4px;
  font-size: 14px;
}
</style>
