<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { useApi } from '~/api/callApi'

/** The simulated post: the letters that would be in people's letter boxes. Only in the demonstration. */
const api = useApi()
const { data, error } = await useAsyncData('post', () => api(API.loadPost))
const partsOf = (text: string) => text.split(/(\/key\/[\w-]+)/)
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
    <article
      v-for="(l, i) in data?.letters"
      :key="i"
      class="sheet letter"
    >
      <p>
        <strong>{{ l.subject }}</strong> <span class="quiet">to {{ l.to }}, {{ readableDay(l.at) }}</span>
      </p>
      <p>
        <template
          v-for="(part, k) in partsOf(l.text)"
          :key="k"
          ><NuxtLink
            v-if="part.startsWith('/key/')"
            :to="part"
            >{{ part }}</NuxtLink
          ><template v-else>{{ part }}</template></template
        >
      </p>
    </article>
  </section>
</template>

<style scoped>
.part {
  display: grid;
  gap: 12px;
}
.letter {
  padding: 12px 18px;
  display: grid;
  gap: 4px;
  overflow-wrap: anywhere;
}
</style>
