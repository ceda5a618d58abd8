<script setup lang="ts">
import { placeName, type Place } from '#core/form/walk'

/** Moves what is selected to a place that is found by number, label or code. */
const emit = defineEmits<{ close: [] }>()
const draft = useDraft()
const script = useScript()
const wanted = ref('')
const at = ref(0)
const isMoving = (p: Place) =>
  draft.selection.includes(p.address) || p.groups.some(g => draft.selection.includes(g.address))
const spots = computed(() =>
  draft.places
    .filter(p => !isMoving(p) && hasWords(`${p.number} ${placeName(p)} ${p.code}`, wanted.value))
    .slice(0, 12),
)
watch(wanted, () => {
  at.value = 0
})
function go(place: Place | undefined) {
  if (place && script.moveTo(script.spotBelow(place))) emit('close')
}
</script>

<template>
  <PlainDialog
    title="Move to"
    @close="emit('close')"
  >
    <v-text-field
      v-model="wanted"
      placeholder="Below which row? Number, label or code"
      aria-label="Below which row"
      @keydown.down.prevent="at = Math.min(spots.length - 1, at + 1)"
      @keydown.up.prevent="at = Math.max(0, at - 1)"
      @keydown.enter.prevent="go(spots[at])"
    />
    <ul>
      <li
        v-for="(p, i) in spots"
        :key="p.address"
      >
        <v-btn
          variant="text"
          :class="{ on: i === at }"
          @click="go(p)"
        >
          <span class="num">{{ p.number }}</span> {{ placeName(p) }} <code>{{ p.code }}</code>{{
            p.kind === 'section' || p.kind === 'group' ? ', at its beginning' : ''
          }}
        </v-btn>
      </li>
    </ul>
    <RefusalAlert :refusal="draft.refused" />
    <template #actions>
      <v-btn @click="emit('close')"> Leave it </v-btn>
    </template>
  </PlainDialog>
</template>

<style scoped>
.on {
  background: var(--verdigris-wash);
  font-weight: 600;
}
</style>
