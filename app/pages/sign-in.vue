<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi, useApi } from '~/api/callApi'

const { loggedIn, fetch } = useUserSession()
await fetch()
const route = useRoute()
const email = ref('')
const password = ref('')
const code = ref('')
const needsCode = ref(false)
const { refusal, busy, enter } = useEntering()
const wanted = computed(() =>
  typeof route.query.to === 'string' && /^\/(?![/\\])/.test(route.query.to) ? route.query.to : '/',
)
if (loggedIn.value) await navigateTo('/')
const api = useApi()
const { data: setUp } = await useAsyncData('set-up', () => api(API.loadSetUp))
if (setUp.value?.isOpen) await navigateTo('/set-up')
useHead({ title: 'Sign in · Tobbin' })

/** Browsers keep no sign-in at a plain http address, but on the machine itself. */
const isPlain = ref(false)
onMounted(() => {
  const { protocol, hostname } = window.location
  isPlain.value =
    protocol === 'http:' && !/^(?:localhost|.*\.localhost|127(?:\.\d+){3}|\[::1\])$/.test(hostname)
})

async function signIn() {
  const given = needsCode.value ? { code: code.value } : {}
  const body = { email: email.value, password: password.value, ...given }
  const refused = await enter(() => callApi(API.signIn, { body }), wanted.value)
  if (refused?.code !== 'code-needed') return
  needsCode.value = true
  refusal.value = null
}
</script>

<template>
  <DoorForm
    title="Sign in"
    about="Write forms, prove every rule, then let people answer."
    button="Sign in"
    :busy="busy"
    :refusal="refusal"
    @submit="signIn"
  >
    <v-alert
      v-if="isPlain"
      type="warning"
    >
      This is a plain http address: your browser will not stay signed in here. Open Tobbin by https, or by
      localhost on its own machine.
    </v-alert>
    <LabelledField
      v-model="email"
      label="E-mail"
      type="email"
      autocomplete="username"
      required
    />
    <LabelledField
      v-model="password"
      label="Password"
      type="password"
      autocomplete="current-password"
      required
    />
    <LabelledField
      v-if="needsCode"
      v-model="code"
      label="Code"
      autocomplete="one-time-code"
      inputmode="numeric"
      hint="Six digits, as your authenticator shows them for Tobbin."
      required
    />
    <template #below>
      <NuxtLink
        class="small"
        to="/forgotten"
        >I forgot my password</NuxtLink
      >
    </template>
  </DoorForm>
</template>
