<script setup lang="ts">
import type { Directory, Team } from '#shared/api/people'
import type { Refusal } from '#shared/api/refusal'

const props = defineProps<{ team: Team; people: Directory['people']; refusal: Refusal | null }>()
const emit = defineEmits<{ close: []; save: [team: Team]; delete: [team: Team] }>()
const name = ref(props.team.name)
const members = ref([...props.team.members])
const isNew = computed(() => props.team.id === '')
</script>

<template>
  <PlainDialog
    :title="isNew ? 'New team' : team.name"
    :width="480"
    @close="emit('close')"
  >
    <div class="fields">
      <LabelledField
        v-model="name"
        label="Name"
        required
      />
      <v-autocomplete
        v-model="members"
        :items="people"
        item-title="name"
        item-value="id"
        label="Who is in it"
        multiple
        chips
        closable-chips
      />
      <RefusalAlert :refusal="refusal" />
    </div>
    <template #actions>
      <v-btn
        variant="flat"
        color="primary"
        :disabled="!name.trim()"
        @click="emit('save', { id: team.id, name: name.trim(), members })"
        >Keep</v-btn
      ><v-btn @click="emit('close')">Leave it</v-btn><span class="spread" /><v-btn
        v-if="!isNew"
        class="fault"
        @click="emit('delete', team)"
        >Delete the team</v-btn
      >
    </template>
  </PlainDialog>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 12px;
  /* The label of the field stands on its line. */
  padding-top: 4px;
}
</style>
