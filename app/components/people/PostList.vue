<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { useApi } from '~/api/callApi'

/** The simulated post: the letters that would be in people's letter boxes. Only in the demonstration. */
const api = useApi()
const { data, error } = await useAsyncData('post', () => api(API.loadPost))
</script>

<template>
  <section
    class="part"
    aria-label="Post"
  >
    <RefusalAlert :refusal="error ? refusalOf(error) : null" />
    <p
      v-if="data"
      class="quiet"
    >
      There is no mail server: letters about accounts are kept here, in the demonstration only.
    </p>
    <v-empty-state
      v-if="data?.letters.length === 0"
      class="sheet"
      title="No letters yet"
      text="An invitation or a forgotten password sends one."
    />
    <LetterCard
      v-for="(l, i) in data?.letters"
      :key="i"
      :letter="l"
    />
  </section>
</template>

<style scoped>
.part {
  display: grid;
  gap: 12px;
}
</style>
