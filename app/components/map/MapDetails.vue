<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { Route } from '#core/form/definition'
import type { MapEdge, MapNode } from '#core/map/graph'

/** What is chosen in the map, to be changed here: a section's rule and exits; or a way, to put a section on it. */
const props = defineProps<{ node: MapNode | null; edge: MapEdge | null; words: string }>()
const emit = defineEmits<{ between: []; close: [] }>()
const draft = useDraft()
const section = computed(() => {
  const address = props.node?.address ?? props.edge?.at
  const place = draft.places.find(p => p.address === address)
  return draft.places.find(p => p.kind === 'section' && p.section === place?.section)
})
const isSkip = computed(() => props.edge?.kind === 'skip')
function set(part: { routes?: Route[] | null; shownWhen?: string | null }) {
  if (section.value) draft.edit([{ do: 'change', what: section.value.address, set: part }])
}
function openInScript() {
  draft.select(props.edge?.at ?? section.value?.address ?? null)
  void navigateTo({ query: {} })
}
</script>

<template>
  <div
    v-if="section && section.kind === 'section'"
    class="details"
    @keydown.stop
  >
    <div class="row-flex">
      <strong>{{ section.number }} {{ section.node.title }}</strong>
      <span
        v-if="edge"
        class="small quiet"
        >{{ words }}</span
      >
      <span class="spread" />
      <v-btn
        v-if="edge && draft.canEdit"
        variant="text"
        @click="emit('between')"
        >+ section on this way</v-btn
      >
      <v-btn
        variant="text"
        @click="openInScript"
        >Show in the script</v-btn
      >
      <IconButton
        :icon="mdiClose"
        name="Close"
        @click="emit('close')"
      />
    </div>
    <fieldset
      class="fields"
      :disabled="!draft.canEdit"
    >
      <RuleField
        v-if="node"
        :key="section.address"
        words="Shown when"
        :text="section.node.shownWhen"
        :place="section"
        :except="section"
        @change="set({ shownWhen: $event })"
        ><template #none><span class="small quiet">always shown</span></template></RuleField
      >
      <p
        v-if="isSkip"
        class="small quiet"
      >
        A skip is written at its question.
      </p>
      <RoutesEditor
        v-else
        :key="`routes ${section.address}`"
        :place="section"
        @change="set({ routes: $event })"
      />
    </fieldset>
  </div>
</template>

<style scoped>
.details {
  flex: none;
  max-height: 45%;
  overflow-y: auto;
  border-top: 1px solid var(--line);
  padding: 10px 16px;
  display: grid;
  gap: 8px;
  background: var(--paper);
}
.fields {
  display: grid;
  gap: 8px;
}
</style>
