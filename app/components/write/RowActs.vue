<script setup lang="ts">
import type { Place } from '#core/form/walk'

/** What can be done with a row as a whole. */
defineProps<{ place: Place }>()
const emit = defineEmits<{ move: [] }>()
const script = useScript()
</script>

<template>
  <div class="row-flex acts">
    <v-btn
      variant="text"
      @click="script.duplicate()"
    >
      Duplicate
    </v-btn>
    <v-btn
      variant="text"
      v-if="place.kind === 'section' && place.section > 0"
      @click="script.merge()"
    >
      Merge with the section above
    </v-btn>
    <v-btn
      variant="text"
      v-if="place.kind !== 'section' && place.groups.length === 0"
      @click="script.split()"
    >
      Begin a new section here
    </v-btn>
    <v-btn
      variant="text"
      @click="emit('move')"
    >
      Move to…
    </v-btn>
    <v-btn
      variant="text"
      @click="script.remove([place.address])"
    >
      Delete
    </v-btn>
  </div>
</template>

<style scoped>
.acts {
  border-top: 1px dotted var(--line);
  padding-top: 6px;
  gap: 4px 14px;
}
</style>
