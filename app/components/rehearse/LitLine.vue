<script setup lang="ts">
import { readableDate } from '#core/expressions/dates'
import { placeName, type Address } from '#core/form/walk'

/** What the answers of a finding lead to, while they are shown. */
const emit = defineEmits<{ why: [address: Address] }>()
const draft = useDraft()
const rehearsal = useRehearsal()
const lit = computed(() => {
  const place = draft.places.find(p => p.address === rehearsal.lit)
  if (!place || !rehearsal.filled) return null
  return {
    name: place.kind === 'note' ? 'this note' : `“${placeName(place)}”`,
    shown: rehearsal.filled.inPlay[place.order] === true,
    address: place.address,
  }
})
</script>

<template>
  <p
    v-if="rehearsal.shown"
    class="lit-line small"
  >
    <template v-if="lit"
      >These answers lead to {{ lit.name
      }}{{ lit.shown ? ', marked below.' : ', which does not show.' }}</template
    ><template v-else>These are the answers of an example.</template> Your own are kept.<template
      v-if="rehearsal.today !== dayHere()"
    >
      Today is {{ readableDate(rehearsal.today) }} here.</template
    >
    <v-btn
      v-if="lit && !lit.shown"
      variant="text"
      @click="emit('why', lit.address)"
    >
      Why not?
    </v-btn>
    <v-btn
      variant="text"
      @click="rehearsal.unlight()"
    >
      Done
    </v-btn>
  </p>
</template>

<style scoped>
.lit-line {
  background: var(--woad-wash);
  padding: 6px 12px;
  margin: 0 auto 12px;
  max-width: 672px;
}
</style>
