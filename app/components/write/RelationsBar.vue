<script setup lang="ts">
import { watchDebounced } from '@vueuse/core'
import { neighboursOf } from '#core/form/uses'
import { placeName, type Address } from '#core/form/walk'

/** What the selected row depends on and what it decides about; a click travels there. */
const emit = defineEmits<{ go: [address: Address] }>()
const draft = useDraft()
const MOST = 6
type Found = ReturnType<typeof neighboursOf>
/** Worked out once the typing rests: it goes through every rule of the form. */
const RESTS = 150
const found = shallowRef<Found>({ needs: [], decides: [] })
const look = () => {
  found.value =
    draft.form && draft.selected
      ? neighboursOf(draft.form, draft.places, draft.selected)
      : { needs: [], decides: [] }
}
watch(() => draft.selected, look, { immediate: true })
watchDebounced(() => draft.form, look, { debounce: RESTS })
const decides = computed(() => [
  ...new Map(found.value.decides.map(u => [u.place.address, u.place])).values(),
])
</script>

<template>
  <div
    v-if="found.needs.length > 0 || decides.length > 0"
    class="relations small"
    role="group"
    aria-label="Relations of the selected row"
  >
    <p v-if="found.needs.length > 0">
      <span class="quiet">depends on</span>
      <v-btn
        v-for="p in found.needs.slice(0, MOST)"
        :key="p.address"
        variant="text"
        @click="emit('go', p.address)"
      >
        {{ p.number }} {{ placeName(p) }}
      </v-btn>
    </p>
    <p v-if="decides.length > 0">
      <span class="quiet">decides about</span>
      <v-btn
        v-for="p in decides.slice(0, MOST)"
        :key="p.address"
        variant="text"
        @click="emit('go', p.address)"
      >
        {{ p.number }} {{ placeName(p) }}</v-btn
      ><span
        v-if="decides.length > MOST"
        class="quiet"
      >
        and {{ decides.length - MOST }} more</span
      >
    </p>
  </div>
</template>

<style scoped>
.relations {
  border-top: 1px solid var(--line);
  padding: 5px 16px;
  background: var(--linen);
  flex: none;
}
.relations .v-btn {
  margin-left: 8px;
}
</style>
