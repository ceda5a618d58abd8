<script setup lang="ts">
/** Full width: one rehearsal, or two side by side with the same answers: two widths, or two parties. */
const two = ref(false)
const draft = useDraft()
const turns = computed(() => draft.form?.turns ?? [])
const sideBySide = computed(() =>
  turns.value.length > 0 ? 'Two parties side by side' : 'Two widths side by side',
)
</script>

<template>
  <div
    class="stage-rehearse"
    :class="{ two }"
  >
    <RehearsalPane
      :key="two ? 'beside' : 'alone'"
      large
      :begin="two ? turns[0]?.code : undefined"
    />
    <RehearsalPane
      v-if="two"
      :begin="turns[1]?.code"
    />
    <v-btn
      variant="text"
      class="side"
      @click="two = !two"
    >
      {{ two ? 'One alone' : sideBySide }}
    </v-btn>
  </div>
</template>

<style scoped>
.stage-rehearse {
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  position: relative;
}
.two {
  grid-template-columns: minmax(0, 1.6fr) minmax(0, 1fr);
}
.side {
  position: absolute;
  left: 16px;
  bottom: 12px;
  background: var(--linen);
  padding: 4px 8px;
}
</style>
