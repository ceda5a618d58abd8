<script setup lang="ts">
const draft = useDraft()
/** The response that is read; a link to one names it. */
const asked = useRoute().query.response
const chosen = ref(typeof asked === 'string' ? asked : null)
const VIEWS = [
  { value: 'responses', title: 'All responses' },
  { value: 'board', title: 'In progress' },
] as const
const view = ref<'responses' | 'board'>('responses')
const hasTurns = computed(() => (draft.form?.turns ?? []).length > 0)
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
    :class="{ split: chosen }"
  >
    <div class="views">
      <SegmentedChoice
        v-if="hasTurns"
        v-model="view"
        name="Which responses"
        :options="VIEWS"
        class="which"
      />
      <Suspense>
        <ProgressBoard
          v-if="view === 'board'"
          v-model:chosen="chosen"
          :form="draft.id"
          :may-act="draft.may('act')"
        />
        <ResponseTable
          v-else
          v-model:chosen="chosen"
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
    <Suspense v-if="chosen">
      <ResponsePanel
        :id="chosen"
        @close="chosen = null"
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
  grid-template-columns: minmax(0, 1fr);
  height: 100%;
}
.views {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
}
.which {
  margin: 14px 20px 0;
  justify-self: start;
}
.waits {
  padding: 20px;
}
.collect.split {
  grid-template-columns: minmax(0, 1fr) 420px;
}
</style>
