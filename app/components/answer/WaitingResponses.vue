<script setup lang="ts">
import type { Waiting } from '~~/offline/outbox'
import type { Offline } from '~/composables/useOffline'

/** What waits on this device to be sent, and what the server did not take. */
const props = defineProps<{ offline: Offline }>()
const emit = defineEmits<{ takeBack: [response: Waiting] }>()
const { waiting, isSending } = props.offline
const open = computed(() => waiting.value.filter(w => w.refusal === null))
const refused = computed(() => waiting.value.filter(w => w.refusal !== null))
</script>

<template>
  <v-alert
    v-if="open.length > 0"
    type="info"
    role="status"
  >
    <p>
      {{ counted(open.length, 'response') }}
      {{ open.length === 1 ? 'waits' : 'wait' }} on this device to be sent.
      <v-btn
        variant="text"
        :disabled="isSending"
        @click="offline.sendNow()"
      >
        {{ isSending ? 'Sending …' : 'Send now' }}
      </v-btn>
    </p>
  </v-alert>
  <v-alert
    v-for="response in refused"
    :key="response.key"
    type="error"
    role="alert"
  >
    <p>A response that waited was not taken: {{ response.refusal }}</p>
    <div class="row-flex">
      <v-btn @click="emit('takeBack', response)"> Look at it </v-btn>
      <v-btn
        variant="text"
        @click="offline.drop(response.key)"
      >
        Drop it
      </v-btn>
    </div>
  </v-alert>
</template>
