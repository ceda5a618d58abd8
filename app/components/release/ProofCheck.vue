<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { CheckedProof } from '#shared/api/releases'
import { callApi } from '~/api/callApi'

/** Proves a version once more, and compares that with the proof that was kept with it. */
const props = defineProps<{ release: number }>()
const draft = useDraft()
const found = shallowRef<CheckedProof | null>(null)
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
const busy = ref(false)
async function check() {
  busy.value = true
  refusal.value = null
  try {
    found.value = await callApi(API.checkProof, { params: { id: draft.id, release: props.release } })
  } catch (error) {
    refusal.value = refusalOf(error)
  }
  busy.value = false
}
const isSame = computed(() => found.value?.fresh.length === 0 && found.value.gone.length === 0)
</script>

<template>
  <v-btn
    variant="text"
    :disabled="busy"
    @click="check"
  >
    {{ busy ? 'Proving …' : 'Check its proof' }}
  </v-btn>
  <div
    v-if="found || refusal"
    class="told small"
    role="status"
  >
    <RefusalAlert :refusal="refusal" />
    <p
      v-if="found && isSame"
      class="proven"
    >
      ✓ Proved again: {{ counted(found.tally.rules, 'rule') }}, the same outcome as when it was released.
    </p>
    <template v-else-if="found">
      <p class="risk">▲ Today’s proof finds something else than the one that was kept.</p>
      <p
        v-for="sentence in found.fresh"
        :key="sentence"
      >
        Now: {{ sentence }}
      </p>
      <p
        v-for="sentence in found.gone"
        :key="sentence"
      >
        Then: {{ sentence }}
      </p>
    </template>
  </div>
</template>

<style scoped>
.told {
  flex-basis: 100%;
}
</style>
