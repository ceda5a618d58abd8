<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

const { fetch: refresh, loggedIn } = useUserSession()
const route = useRoute()
const email = ref('')
const password = ref('')
const wrong = ref('')
const busy = ref(false)
const wanted = computed(() =>
  typeof route.query.to === 'string' && /^\/(?!\/)/.test(route.query.to) ? route.query.to : '/',
)
if (loggedIn.value) await navigateTo('/')
useHead({ title: 'Sign in · Tobbin' })

async function signIn() {
  busy.value = true
  wrong.value = ''
  try {
    await callApi(API.signIn, { body: { email: email.value, password: password.value } })
    await refresh()
    // This page stays, and busy, until the next one has what it shows.
    if (loggedIn.value) return await navigateTo(wanted.value)
    wrong.value = 'You are signed in, but the session could not be read. Try again.'
  } catch (error) {
    wrong.value = refusalOf(error).sentence
  }
  busy.value = false
}
</script>

<template>
  <main class="door">
    <form
      class="sheet"
      @submit.prevent="signIn"
    >
      <div class="row-flex sign"><BobbinSign /><strong>Tobbin</strong></div>
      <h1>Sign in</h1>
      <p class="quiet">Write forms, prove every rule, then let people answer.</p>
      <label
        >E-mail
        <v-text-field
          v-model="email"
          type="email"
          autocomplete="username"
          required
      /></label>
      <label
        >Password
        <v-text-field
          v-model="password"
          type="password"
          autocomplete="current-password"
          required
      /></label>
      <RefusalAlert :refusal="wrong" />
      <v-btn
        variant="flat"
        color="primary"
        type="submit"
        :disabled="busy"
      >
        Sign in
      </v-btn>
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
label {
  display: grid;
  gap: 4px;
  font-size: 14px;
}
.sign {
  margin-bottom: 8px;
}
.v-btn {
  justify-content: center;
  min-height: 40px;
}
</style>
