<script setup lang="ts">
/** In which tray a response stands; another one is chosen here. */
const props = defineProps<{ response: string; tray: string | null }>()
const collect = useCollect()
const { refusal, busy, attempt } = useRefusable()
const trays = computed(() => [
  { value: null, title: 'in no tray' },
  ...(collect.workbench?.trays ?? []).map(t => ({ value: t.id, title: t.name })),
])
const move = (tray: string | null) =>
  attempt(async () => {
    const { left } = await collect.act([props.response], { do: 'tray', tray })
    return left[0]?.sentence ?? null
  })
</script>

<template>
  <v-select
    v-if="trays.length > 1"
    :model-value="tray"
    :items="trays"
    :disabled="busy"
    aria-label="Tray"
    class="tray"
    @update:model-value="move"
  />
  <RefusalAlert :refusal="refusal" />
</template>

<style scoped>
.tray {
  flex: 0 1 200px;
}
</style>
