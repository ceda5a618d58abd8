<script setup lang="ts">
/** The trays side by side: responses are moved from one to the other by dragging, and by the arrow keys. */
const collect = useCollect()
const { refusal, attempt } = useRefusable()
const lanes = computed(() => [
  { id: null, name: 'In no tray', count: collect.workbench?.untrayed ?? 0 },
  ...(collect.workbench?.trays ?? []),
])
/** The card that moved keeps the focus. */
const moved = ref<string | null>(null)
const move = (response: string, tray: string | null) =>
  attempt(async () => {
    moved.value = response
    const { left } = await collect.act([response], { do: 'tray', tray })
    return left[0]?.sentence ?? null
  })
function shift(response: string, from: number, by: 1 | -1) {
  const to = lanes.value[from + by]
  if (to) void move(response, to.id)
}
</script>

<template>
  <section
    class="board"
    aria-label="Trays side by side"
  >
    <p class="quiet small">
      Drag a response to another tray, or press <kbd>←</kbd> and <kbd>→</kbd> on it. <kbd>Enter</kbd> opens
      it.
    </p>
    <RefusalAlert :refusal="refusal" />
    <div class="lanes">
      <TrayLane
        v-for="(l, i) in lanes"
        :key="l.id ?? 'none'"
        :tray="l.id"
        :name="l.name"
        :count="l.count"
        :moved="moved"
        @take="move($event, l.id)"
        @shift="(response, by) => shift(response, i, by)"
        @focused="moved = null"
      />
    </div>
  </section>
</template>

<style scoped>
.board {
  padding: 16px 20px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: auto auto minmax(0, 1fr);
  gap: 10px;
  min-height: 0;
}
.lanes {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(190px, 1fr);
  gap: 10px;
  overflow-x: auto;
  min-height: 0;
}
</style>
