<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

const email = ref('')
const isAsked = ref(false)
const busy = ref(false)
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
useHead({ title: 'Forgotten password · Tobbin' })

async function ask() {
  busy.value = true
  refusal.value = null
  try {
    await callApi(API.forgetPassword, { body: { email: email.value } })
    isAsked.value = true
  } catch (error) {
    refusal.value = refusalOf(error)
  }
  busy.value = false
}
</script>

<template>
  <DoorForm
    title="Forgotten password"
    about="We post a link by which you choose another one. It counts for an hour."
    button="Post me a link"
    :busy="busy"
    :refusal="refusal"
    @submit="ask"
  >
    <LabelledField
      v-model="email"
      label="E-mail"
      type="email"
      autocomplete="username"
      required
    />
    <v-alert
      v-if="isAsked"
      type="success"
      role="status"
    >
      If somebody here has this address, the link is on its way.
    </v-alert>
    <template #below>
      <NuxtLink
        class="small"
        to="/sign-in"
        >Back to signing in</NuxtLink
      >
    </template>
  </DoorForm>
</template>
