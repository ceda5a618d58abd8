<script setup lang="ts">
import {
  mdiArrowUpDown,
  mdiCommentOutline,
  mdiContentDuplicate,
  mdiSourceBranch,
  mdiTrashCanOutline,
} from '@mdi/js'
import type { Place } from '#core/form/walk'

/** What can be done with a row as a whole. */
defineProps<{ place: Place }>()
const emit = defineEmits<{ move: [] }>()
const script = useScript()
const draft = useDraft()
const isRemarking = ref(false)
</script>

<template>
  <div class="row-flex acts">
    <v-btn
      v-if="place.kind === 'section' && place.section > 0"
      variant="text"
      @click="script.merge()"
    >
      Merge with the section above
    </v-btn>
    <v-btn
      v-if="place.kind !== 'section' && place.groups.length === 0"
      variant="text"
      @click="script.split()"
    >
      Begin a new section here
    </v-btn>
    <v-btn
      v-if="draft.may('suggest')"
      variant="text"
      :prepend-icon="mdiCommentOutline"
      @click="isRemarking = true"
    >
      Remark…
    </v-btn>
    <v-btn
      variant="text"
      :prepend-icon="mdiSourceBranch"
      :to="{ query: { view: 'map', at: place.address } }"
    >
      On the map
    </v-btn>
    <span class="spread" />
    <IconButton
      :icon="mdiContentDuplicate"
      name="Duplicate"
      keys="Ctrl D"
      @click="script.duplicate()"
    />
    <IconButton
      :icon="mdiArrowUpDown"
      name="Move to…"
      @click="emit('move')"
    />
    <IconButton
      :icon="mdiTrashCanOutline"
      name="Delete"
      keys="Delete"
      @click="script.remove([place.address])"
    />
    <RemarkDialog
      v-if="isRemarking"
      :place="place"
      @close="isRemarking = false"
    />
  </div>
</template>

<style scoped>
.acts {
  border-top: 1px dotted var(--line);
  padding-top: 6px;
  gap: 4px 14px;
}
</style>
