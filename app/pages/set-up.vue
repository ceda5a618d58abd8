<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { LEAST_PASSWORD } from '#shared/api/people'
import { callApi, useApi } from '~/api/callApi'

const api = useApi()
const { data } = await useAsyncData('set-up', () => api(API.loadSetUp))
if (!data.value?.isOpen) await navigateTo('/sign-in')
const code = ref('')
const name = ref('')
const email = ref('')
const password = ref('')
const { refusal, busy, enter } = useEntering()
useHead({ title: 'Set up · Tobbin' })

const setUp = () =>
  enter(
    () =>
      callApi(API.setUp, {
        body: { code: code.value, name: name.value, email: email.value, password: password.value },
      }),
    '/',
  )
</script>

<template>
  <DoorForm
    title="Set up"
    about="Nobody is here yet. The server has printed a code where it was started; whoever has it becomes the first admin."
    button="Begin"
    :busy="busy"
    :refusal="refusal"
    @submit="setUp"
  >
    <LabelledField
      v-model="code"
      label="Code that the server printed"
      hint="Three times four letters and digits"
      required
    />
    <LabelledField
      v-model="name"
      label="Your name"
      autocomplete="name"
      required
    />
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
      autocomplete="new-password"
      :hint="`At least ${LEAST_PASSWORD} characters`"
      required
    />
  </DoorForm>
</template>
