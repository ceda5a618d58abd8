<script setup lang="ts">
import type { Refusal } from '#shared/api/refusal'

/** A sheet before the first page: what it is, its fields, and one button. */
defineProps<{
  title: string
  about?: string
  button: string
  busy?: boolean
  refusal?: Refusal | string | null
}>()
const emit = defineEmits<{ submit: [] }>()
</script>

<template>
  <main class="door">
    <form
      class="sheet"
      @submit.prevent="emit('submit')"
    >
      <div class="row-flex sign"><BobbinSign /><strong>Tobbin</strong></div>
      <h1>{{ title }}</h1>
      <p
        v-if="about"
        class="quiet"
      >
        {{ about }}
      </p>
      <slot />
      <RefusalAlert :refusal="refusal" />
      <v-btn
        variant="flat"
        color="primary"
        type="submit"
        :disabled="busy"
      >
        {{ button }}
      </v-btn>
      <slot name="below" />
    </form>
  </main>
</template>

<style scoped>
.door {
  display: grid;
  place-items: center;
  min-height: 100vh;
  padding: 16px;
}
form {
  width: 360px;
  max-width: 100%;
  padding: 32px;
  display: grid;
  gap: 16px;
  box-sizing: border-box;
}
.sign {
  margin-bottom: 8px;
}
.v-btn[type='submit'] {
  justify-content: center;
  min-height: 40px;
}
</style>
