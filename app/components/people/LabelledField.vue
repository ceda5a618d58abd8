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
const hintId = useId()
</script>

<template>
  <div class="labelled">
    <label>
      {{ label }}
      <v-text-field
        v-model="text"
        :type="type ?? 'text'"
        :autocomplete="autocomplete ?? 'off'"
        :required="required"
        :inputmode="inputmode"
        :aria-describedby="hint ? hintId : undefined"
        maxlength="200"
      />
    </label>
    <span
      v-if="hint"
      :id="hintId"
      class="small quiet"
      >{{ hint }}</span
    >
  </div>
</template>

<style scoped>
.labelled,
label {
  display: grid;
  gap: 4px;
  font-size: 14px;
}
</style>
