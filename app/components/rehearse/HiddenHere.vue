<script setup lang="ts">
import { placeName, type Address, type Place } from '#core/form/walk'

/** What stands in a section and does not show now, each with the way to its reason. */
const props = defineProps<{ section: number }>()
const emit = defineEmits<{ why: [address: Address] }>()
const draft = useDraft()
const rehearsal = useRehearsal()
const shows = (p: Place) => rehearsal.filled?.inPlay[p.order] === true
/** A part of something hidden is not told apart from it. */
const isPartOfHidden = (p: Place) => p.groups.some(g => !shows(g))
const hidden = computed(() =>
  draft.places.filter(
    p =>
      p.section === props.section &&
      p.kind !== 'section' &&
      p.entryOf === null &&
      !shows(p) &&
      !isPartOfHidden(p),
  ),
)
const title = computed(() =>
  hidden.value.length === 1
    ? 'One thing of this section does not show'
    : `${hidden.value.length} things of this section do not show`,
)
</script>

<template>
  <FoldedPart
    v-if="hidden.length > 0"
    class="not-shown"
    :title="title"
  >
    <ul>
      <li
        v-for="p in hidden"
        :key="p.address"
      >
        <v-btn
          variant="text"
          @click="emit('why', p.address)"
        >
          Why not {{ p.number }} {{ placeName(p) }}?
        </v-btn>
      </li>
    </ul>
  </FoldedPart>
</template>

<style scoped>
.not-shown {
  max-width: 640px;
  margin: 6px auto 0;
  color: var(--slate);
}
.not-shown li {
  margin: 3px 0 0 14px;
}
</style>
