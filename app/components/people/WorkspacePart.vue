<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { callApi, useApi } from '~/api/callApi'

/** What the workspace says of itself; forms and letters quote it. */
const api = useApi()
const { data } = await useAsyncData('workspace', () => api(API.loadWorkspace))
const { say } = useSaid()
const name = ref(data.value?.name ?? '')
const address = ref(data.value?.address ?? '')
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
const isChanged = computed(() => name.value !== data.value?.name || address.value !== data.value?.address)

async function save() {
  refusal.value = null
  const body = { name: name.value.trim(), address: address.value.trim() }
  try {
    await callApi(API.saveWorkspace, { body })
    data.value = body
    name.value = body.name
    address.value = body.address
    say('The name and address of the workspace are kept.')
  } catch (error) {
    refusal.value = refusalOf(error)
  }
}
</script>

<template>
  <section
    class="sheet"
    aria-label="Workspace"
  >
    <p class="quiet">
      Texts of forms quote these as <code>workspace.name</code> and <code>workspace.address</code>. A change
      shows at once wherever they are quoted.
    </p>
    <form
      class="fields"
      @submit.prevent="save"
    >
      <LabelledField
        v-model="name"
        label="Name"
        autocomplete="organization"
      />
      <label>
        Address
        <v-textarea
          v-model="address"
          rows="3"
          auto-grow
          maxlength="1000"
          autocomplete="street-address"
        />
      </label>
      <div>
        <v-btn
          type="submit"
          :disabled="!isChanged"
        >
          Keep
        </v-btn>
      </div>
      <RefusalAlert :refusal="refusal" />
    </form>
  </section>
</template>

<style scoped>
.sheet {
  padding: 16px 20px 20px;
}
.fields > label {
  font-size: 13px;
}
.fields {
  display: grid;
  gap: 12px;
  max-width: 420px;
  margin-top: 12px;
}
</style>
