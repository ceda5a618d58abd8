<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { Person } from '#shared/api/people'
import { callApi } from '~/api/callApi'

/** Changes somebody: name, role, whether they may sign in; hands their forms over where nobody else owns them. */
const props = defineProps<{ person: Person; people: readonly Person[] }>()
const emit = defineEmits<{ close: []; changed: [sentence: string] }>()
const name = ref(props.person.name)
const role = ref(props.person.role)
const heir = ref<string | null>(null)
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
const isSuspended = computed(() => props.person.state === 'suspended')
const heirs = computed(() => props.people.filter(p => p.id !== props.person.id && p.state !== 'suspended'))

async function run(what: () => Promise<unknown>, sentence: string) {
  refusal.value = null
  try {
    await what()
    emit('changed', sentence)
  } catch (error) {
    refusal.value = refusalOf(error)
  }
}
const params = { id: props.person.id }
const keep = () =>
  run(
    () => callApi(API.changePerson, { params, body: { name: name.value, role: role.value } }),
    `${name.value} is kept.`,
  )
const suspend = () =>
  run(
    () => callApi(API.changePerson, { params, body: { isSuspended: !isSuspended.value } }),
    isSuspended.value
      ? `${props.person.name} may sign in again.`
      : `${props.person.name} is suspended and signed out everywhere.`,
  )
const removeFactor = () =>
  run(
    () => callApi(API.changePerson, { params, body: { withoutSecondFactor: true } }),
    `${props.person.name} signs in by password alone.`,
  )
const handOver = () =>
  run(
    () => callApi(API.handOverForms, { params, body: { to: heir.value ?? '' } }),
    `${counted(props.person.ownsAlone, 'form')} handed over.`,
  )
</script>

<template>
  <PlainDialog
    :title="person.name"
    :width="520"
    @close="emit('close')"
  >
    <div class="fields">
      <LabelledField
        v-model="name"
        label="Name"
        required
      />
      <RoleField v-model="role" />
      <v-btn
        v-if="person.hasSecondFactor"
        @click="removeFactor"
      >
        Take the second factor away
      </v-btn>
      <div
        v-if="person.ownsAlone > 0"
        class="heir"
      >
        <p class="small">
          {{ person.name }} is the only owner of {{ counted(person.ownsAlone, 'form') }}. Before this person
          is suspended, somebody else has to own them too.
        </p>
        <div class="row-flex">
          <v-select
            v-model="heir"
            :items="heirs"
            item-title="name"
            item-value="id"
            aria-label="Who is to own the forms"
            placeholder="Who is to own them?"
          />
          <v-btn
            :disabled="!heir"
            @click="handOver"
          >
            Hand over
          </v-btn>
        </div>
      </div>
      <RefusalAlert :refusal="refusal" />
    </div>
    <template #actions>
      <v-btn
        variant="flat"
        color="primary"
        :disabled="!name.trim() || (name === person.name && role === person.role)"
        @click="keep"
        >Keep</v-btn
      ><v-btn @click="emit('close')">Leave it</v-btn><span class="spread" /><v-btn
        :class="{ fault: !isSuspended }"
        @click="suspend"
        >{{ isSuspended ? 'Let in again' : 'Suspend' }}</v-btn
      >
    </template>
  </PlainDialog>
</template>

<style scoped>
.fields,
.heir {
  display: grid;
  gap: 12px;
}
.heir {
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
</style>
