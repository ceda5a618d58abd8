<script setup lang="ts">
const draft = useDraft()
const chosen = ref<string | null>(null)
</script>

<template>
  <div
    class="collect"
    :class="{ split: chosen }"
  >
    <Suspense>
      <ResponseTable
        v-model:chosen="chosen"
        :form="draft.id"
      >
        <div class="sheet none">
          <p>No responses yet.</p>
          <p
            v-if="draft.releases[0]"
            class="quiet"
          >
            Send out the link of version {{ draft.releases[0].number }}:
            <a
              :href="`/f/${draft.releases[0].token}`"
              target="_blank"
              >open the form</a
            >.
          </p>
          <p
            v-else
            class="quiet"
          >
            <NuxtLink :to="`/forms/${draft.id}/release`">Release the form</NuxtLink> to get a link for
            respondents.
          </p>
        </div>
      </ResponseTable>
    </Suspense>
    <Suspense v-if="chosen">
      <ResponsePanel
        :id="chosen"
        @close="chosen = null"
      />
    </Suspense>
  </div>
</template>

<style scoped>
.collect {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  height: 100%;
}
.collect.split {
  grid-template-columns: minmax(0, 1fr) 420px;
}
.none {
  padding: 32px;
  display: grid;
  gap: 8px;
}
</style>
