<script setup lang="ts">
import type { NuxtError } from '#app'

/** What stands where an address leads nowhere, or a page could not be made. */
const props = defineProps<{ error: NuxtError }>()
const theme = useDesignTheme()
const isMissing = computed(() => props.error.statusCode === 404)
useHead({ title: () => (isMissing.value ? 'Nothing here · Tobbin' : 'Something went wrong · Tobbin') })
const leave = () => clearError({ redirect: '/' })
</script>

<template>
  <v-app :theme="theme.name.value">
    <main class="lost">
      <div class="row-flex"><BobbinSign /><strong>Tobbin</strong></div>
      <h1>{{ isMissing ? 'There is nothing at this address' : 'This page could not be made' }}</h1>
      <p v-if="isMissing">
        Perhaps a letter of it was lost on the way. If somebody sent you a link to a form, open it once more
        from the message, or ask them for a new one.
      </p>
      <p v-else>Nothing of yours is lost. Try again in a moment.</p>
      <div>
        <v-btn @click="leave">Go to the forms</v-btn>
      </div>
    </main>
  </v-app>
</template>

<style scoped>
.lost {
  padding: 64px 20px;
  max-width: 640px;
  width: 100%;
  box-sizing: border-box;
  margin: 0 auto;
  display: grid;
  gap: 16px;
  align-content: start;
}
</style>
