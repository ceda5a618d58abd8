<script setup lang="ts">
import { mdiClose, mdiFormTextbox } from '@mdi/js'
import { useFillRest } from '~/composables/rehearse/useFillRest'

/** Filling the rest, and the sets of answers kept under a name. */
const { say } = useSaid()
const rehearsal = useRehearsal()
const name = ref('')
const fillRest = useFillRest()
function saveSet() {
  const kept = name.value.trim()
  if (!kept) return
  rehearsal.saveSet(kept)
  say(`Kept as “${kept}”.`)
  name.value = ''
}
</script>

<template>
  <v-menu
    location="bottom end"
    :close-on-content-click="false"
  >
    <template #activator="{ props }">
      <IconButton
        v-bind="props"
        :icon="mdiFormTextbox"
        name="Answers"
      />
    </template>
    <v-sheet class="menu">
      <v-btn
        variant="text"
        @click="fillRest"
      >
        Fill the rest
      </v-btn>
      <form
        class="row-flex"
        @submit.prevent="saveSet"
      >
        <v-text-field
          v-model="name"
          placeholder="Name of this set"
          aria-label="Name of this set of answers"
          maxlength="80"
        /><v-btn
          type="submit"
          variant="text"
          :disabled="!name.trim()"
        >
          Keep
        </v-btn>
      </form>
      <p
        v-if="rehearsal.sets.length === 0"
        class="small quiet"
      >
        No sets kept yet.
      </p>
      <div
        v-for="s in rehearsal.sets"
        :key="s.name"
        class="row-flex"
      >
        <v-btn
          variant="text"
          @click="rehearsal.openSet(s.name)"
        >
          {{ s.name }}</v-btn><span class="spread" /><IconButton
          :icon="mdiClose"
          :name="`Remove the set ${s.name}`"
          @click="rehearsal.removeSet(s.name)"
        />
      </div>
    </v-sheet>
  </v-menu>
</template>

<style scoped>
.menu {
  width: 280px;
  padding: 12px;
  display: grid;
  gap: 6px;
}
</style>
