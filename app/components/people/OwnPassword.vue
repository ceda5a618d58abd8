<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { LEAST_PASSWORD } from '#shared/api/people'
import { callApi } from '~/api/callApi'

const emit = defineEmits<{ changed: [] }>()
const { say } = useSaid()
const old = ref('')
const password = ref('')
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)

async function change() {
  refusal.value = null
  try {
    await callApi(API.changePassword, { body: { old: old.value, password: password.value } })
    old.value = ''
    password.value = ''
    say('Your password is changed; every other browser is signed out.')
    emit('changed')
  } catch (error) {
    refusal.value = refusalOf(error)
  }
}
</script>

<template>
  <section
    class="sheet"
    aria-labelledby="password"
  >
    <h2 id="password">Password</h2>
    <form
      class="fields"
      @submit.prevent="change"
    >
      <LabelledField
        v-model="old"
        label="Password until now"
        type="password"
        autocomplete="current-password"
        required
      />
      <LabelledField
        v-model="password"
        label="New password"
        type="password"
        autocomplete="new-password"
        :hint="`At least ${LEAST_PASSWORD} characters`"
        required
      />
      <div>
        <v-btn
          type="submit"
          :disabled="!old || password.length < LEAST_PASSWORD"
        >
          Change the password
        </v-btn>
      </div>
      <RefusalAlert :refusal="refusal" />
    </form>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 12px;
  max-width: 360px;
}
</style>
