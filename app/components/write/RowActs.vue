<script setup lang="ts">
import type { Place } from '#core/form/walk'

/** What can be done with a row as a whole. */
defineProps<{ place: Place }>()
const emit = defineEmits<{ move: [] }>()
const script = useScript()
</script>

<template>
  <div class="row-flex acts">
    <button
      class="text-button"
      @click="script.duplicate()"
    >
      Duplicate
    </button>
    <button
      v-if="place.kind === 'section' && place.section > 0"
      class="text-button"
      @click="script.merge()"
    >
      Merge with the section above
    </button>
    <button
      v-if="place.kind !== 'section' && place.groups.length === 0"
      class="text-button"
      @click="script.split()"
    >
      Begin a new section here
    </button>
    <button
      class="text-button"
      @click="emit('move')"
    >
      Move to…
    </button>
    <button
      class="text-button"
      @click="script.remove([place.address])"
    >
      Delete
    </button>
  </div>
</template>

<style scoped>
.acts {
  border-top: 1px dotted var(--line);
  padding-top: 6px;
  gap: 4px 14px;
}
</style>
