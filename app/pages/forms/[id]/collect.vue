<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp } from '@mdi/js'

const draft = useDraft()
const collect = useCollect()
const { refusal, attempt } = useRefusable()
const hasTurns = computed(() => (draft.form?.turns ?? []).length > 0)
const isWide = ref(false)
/** Where there is no room beside the table, the rail stands above it, folded until it is asked for. */
const isRailOpen = ref(false)
watch(
  () => [collect.mode, collect.view, collect.filter],
  () => (isRailOpen.value = false),
)
onMounted(async () => {
  if (!draft.may('responses')) return
  await attempt(() => collect.open(draft.id))
  /** A link to a response, or to a view, names it. */
  const { response, view } = useRoute().query
  if (typeof response === 'string') collect.chosen = response
  const kept = collect.workbench?.views.find(v => v.id === view)
  if (kept) collect.show(kept)
})
const narrow = (isOpen: boolean) => ({ split: isOpen && !isWide.value, wide: isOpen && isWide.value })
</script>

<template>
  <v-empty-state
    v-if="!draft.may('responses')"
    title="The responses are not shared with you"
    text="An owner of this form can let you see them."
  />
  <div
    v-else
    class="collect"
    :class="narrow(collect.chosen !== null)"
  >
    <v-btn
      class="unfold"
      :prepend-icon="isRailOpen ? mdiChevronUp : mdiChevronDown"
      :aria-expanded="isRailOpen"
      @click="isRailOpen = !isRailOpen"
      >Views, trays, figures</v-btn
    >
    <CollectRail
      class="rail"
      :class="{ folded: !isRailOpen }"
      :all="draft.responses"
      :has-turns="hasTurns"
    />
    <div
      v-if="collect.form === draft.id"
      class="middle"
    >
      <RefusalAlert :refusal="refusal" />
      <Suspense>
        <ProgressBoard
          v-if="collect.mode === 'progress'"
          v-model:chosen="collect.chosen"
          :form="draft.id"
          :may-act="draft.may('act')"
        />
        <TrayBoard v-else-if="collect.mode === 'trays'" />
        <LazyFiguresPane
          v-else-if="collect.mode === 'figures'"
          :form="draft.id"
        />
        <LazyCrossPane
          v-else-if="collect.mode === 'cross'"
          :form="draft.id"
        />
        <AccessKeys
          v-else-if="collect.mode === 'keys'"
          :form="draft.id"
        />
        <KeepingPane v-else-if="collect.mode === 'keeping'" />
        <DeliveryLog
          v-else-if="collect.mode === 'deliveries'"
          :form="draft.id"
          :may-act="draft.may('act')"
        />
        <ResponseTable
          v-else
          :form="draft.id"
        >
          <v-empty-state
            class="sheet"
            title="No responses yet"
          >
            <template #text>
              <template v-if="draft.releases[0]">
                Send out the link of the form; it stands at
                <NuxtLink :to="`/forms/${draft.id}/release`">Release</NuxtLink>.
              </template>
              <template v-else>
                <NuxtLink :to="`/forms/${draft.id}/release`">Release the form</NuxtLink> to get a link for
                respondents.
              </template>
            </template>
          </v-empty-state>
        </ResponseTable>
        <template #fallback>
          <v-skeleton-loader
            class="waits"
            type="heading, table-thead, table-tbody"
            aria-label="The responses are being fetched"
          />
        </template>
      </Suspense>
    </div>
    <Suspense v-if="collect.chosen">
      <ResponsePanel
        :id="collect.chosen"
        v-model:wide="isWide"
        @close="collect.chosen = null"
      />
      <template #fallback>
        <v-skeleton-loader
          class="waits"
          type="heading, list-item-two-line@8"
          aria-label="The response is being fetched"
        />
      </template>
    </Suspense>
  </div>
</template>

<style scoped>
.collect {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
  height: 100%;
}
.middle {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}
.middle:has(> .v-alert) {
  grid-template-rows: auto minmax(0, 1fr);
}
.waits {
  padding: 20px;
}
.unfold {
  display: none;
}
.collect.split {
  grid-template-columns: 190px minmax(0, 1fr) 380px;
}
.collect.wide {
  grid-template-columns: 190px minmax(0, 1fr);
}
.collect.wide .middle {
  display: none;
}
@media (max-width: 900px) {
  .collect,
  .collect.split,
  .collect.wide {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto;
    align-content: start;
    height: auto;
  }
  .unfold {
    display: inline-flex;
    justify-self: start;
    margin: 14px 20px 0;
  }
  .rail.folded,
  .collect.split .middle {
    display: none;
  }
}
</style>
