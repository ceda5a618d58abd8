<script setup lang="ts">
import { placeName } from '#core/form/walk'

/** Says who uses what is about to be deleted. */
const emit = defineEmits<{ close: [] }>()
const script = useScript()
/** How many uses are listed. */
const SHOWN = 12
function go(sure: boolean) {
  const { value } = script.doomed
  script.doomed.value = null
  if (sure && value) script.remove(value.addresses, true)
  emit('close')
}
</script>

<template>
  <PlainDialog
    v-if="script.doomed.value"
    title="Delete something in use"
    asks
    @close="go(false)"
  >
    <p>
      <strong
        >{{
          script.doomed.value.uses.length === 1
            ? 'One place uses'
            : `${script.doomed.value.uses.length} places use`
        }}
        what you are about to delete.</strong
      >
      Their rules will be faults until you mend them.
    </p>
    <ul class="small">
      <li
        v-for="(u, i) in script.doomed.value.uses.slice(0, SHOWN)"
        :key="i"
      >
        {{ u.place.number }} {{ placeName(u.place) }}: {{ u.words }}
      </li>
      <li v-if="script.doomed.value.uses.length > SHOWN">
        and {{ script.doomed.value.uses.length - SHOWN }} more
      </li>
    </ul>
    <template #actions>
      <v-btn @click="go(false)"> Keep it</v-btn
      ><v-btn
        class="fault"
        @click="go(true)"
      >
        Delete it all the same
      </v-btn>
    </template>
  </PlainDialog>
</template>
