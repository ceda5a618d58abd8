<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { LEAST_PASSWORD } from '#shared/api/people'
import { callApi, useApi } from '~/api/callApi'

const params = { key: String(useRoute().params.key) }
const api = useApi()
const { data, error } = await useAsyncData(`key-${params.key}`, () => api(API.openKey, { params }))
const event = useRequestEvent()
if (error.value && event) setResponseStatus(event, error.value.status ?? 500)
const password = ref('')
const { refusal, busy, enter } = useEntering()
useHead({ title: 'Choose a password · Tobbin', meta: [{ name: 'referrer', content: 'no-referrer' }] })
const about = computed(() =>
  data.value?.kind === 'invite'
    ? `Welcome, ${data.value.name}. You sign in as ${data.value.email}.`
    : `For ${data.value?.email}. Every browser that is signed in as you is signed out.`,
)

/** With a second factor, the new password counts, and signing in asks for the code. */
async function choose() {
  const refused = await enter(
    () => callApi(API.choosePassword, { params, body: { password: password.value } }),
    '/',
  )
  if (refused?.code === 'code-needed') await navigateTo('/sign-in')
}
</script>

<template>
  <DoorForm
    v-if="data"
    title="Choose a password"
    :about="about"
    button="Go on"
    :busy="busy"
    :refusal="refusal"
    @submit="choose"
  >
    <LabelledField
      v-model="password"
      label="New password"
      type="password"
      autocomplete="new-password"
      :hint="`At least ${LEAST_PASSWORD} characters`"
      required
    />
  </DoorForm>
  <main
    v-else
    class="lost"
  >
    <h1>{{ refusalOf(error).sentence }}</h1>
    <p>
      <NuxtLink to="/sign-in">Sign in</NuxtLink> or
      <NuxtLink to="/forgotten">ask for another password</NuxtLink>.
    </p>
  </main>
</template>

<style scoped>
.lost {
  padding: 64px 20px;
  max-width: 640px;
  margin: 0 auto;
  display: grid;
  gap: 16px;
}
</style>
