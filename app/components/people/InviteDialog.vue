<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { Role } from '#shared/api/people'
import { callApi } from '~/api/callApi'

const emit = defineEmits<{ close: []; invited: [name: string, link: string] }>()
const name = ref('')
const email = ref('')
const role = ref<Role>('maker')
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)

async function invite() {
  refusal.value = null
  try {
    const body = { name: name.value, email: email.value, role: role.value }
    const { link } = await callApi(API.invitePerson, { body })
    emit('invited', name.value.trim(), link)
  } catch (error) {
    refusal.value = refusalOf(error)
  }
}
</script>

<template>
  <PlainDialog
    title="Invite somebody"
    :width="480"
    @close="emit('close')"
  >
    <form
      id="invite"
      class="fields"
      @submit.prevent="invite"
    >
      <LabelledField
        v-model="name"
        label="Name"
        required
      />
      <LabelledField
        v-model="email"
        label="E-mail"
        type="email"
        required
      />
      <RoleField v-model="role" />
      <RefusalAlert :refusal="refusal" />
    </form>
    <template #actions>
      <v-btn
        type="submit"
        form="invite"
        variant="flat"
        color="primary"
        :disabled="!name.trim() || !email.trim()"
        >Invite</v-btn
      ><v-btn @click="emit('close')">Leave it</v-btn>
    </template>
  </PlainDialog>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 12px;
}
</style>
