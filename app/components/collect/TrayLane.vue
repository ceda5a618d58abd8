<script setup lang="ts">
import { dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** One tray with the newest of its responses. */
const props = defineProps<{ tray: string | null; name: string; count: number; moved: string | null }>()
const emit = defineEmits<{
  take: [response: string]
  shift: [response: string, by: 1 | -1]
  focused: []
}>()
const collect = useCollect()
/** So many of the newest are shown. */
const SHOWN = 50
const query = computed(() => ({
  search: collect.search,
  tray: props.tray ?? 'none',
  size: SHOWN,
}))
const { data, error } = await useAsyncData(
  `tray-${collect.form}-${props.tray}`,
  () => callApi(API.listResponses, { params: { id: collect.form }, query: query.value }),
  { server: false, watch: [query, () => collect.changes] },
)
/** What tells one response from another: the first answers that it gives, as the columns stand. */
const FACTS = 3
const cards = computed(() => {
  const codes = collect.columns ?? data.value?.columns.map(c => c.code) ?? []
  return (data.value?.rows ?? []).map(row => ({
    ...row,
    facts: codes
      .map(code => row.cells[code] ?? '')
      .filter(text => text !== '' && text !== '·')
      .slice(0, FACTS),
  }))
})
const lane = useTemplateRef('lane')
const isOver = ref(false)
onMounted(() => {
  if (!lane.value) return
  const stop = dropTargetForElements({
    element: lane.value,
    canDrop: ({ source }) => typeof source.data.response === 'string',
    onDragEnter: () => (isOver.value = true),
    onDragLeave: () => (isOver.value = false),
    onDrop: ({ source }) => {
      isOver.value = false
      const { response, from } = source.data
      if (typeof response === 'string' && from !== props.tray) emit('take', response)
    },
  })
  onBeforeUnmount(stop)
})
</script>

<template>
  <section
    ref="lane"
    class="lane"
    :class="{ over: isOver }"
    :aria-label="name"
  >
    <h3>
      {{ name }} <span class="num quiet">{{ count }}</span>
    </h3>
    <RefusalAlert :refusal="error && refusalOf(error).sentence" />
    <p
      v-if="cards.length === 0"
      class="quiet small"
    >
      Empty
    </p>
    <TrayCard
      v-for="c in cards"
      :key="c.id"
      :row="c"
      :tray="tray"
      :is-moved="moved === c.id"
      @open="collect.chosen = c.id"
      @shift="emit('shift', c.id, $event)"
      @focused="emit('focused')"
    />
    <p
      v-if="count > cards.length && cards.length > 0"
      class="quiet small"
    >
      and {{ count - cards.length }} older
    </p>
  </section>
</template>

<style scoped>
.lane {
  border: 1px solid var(--line);
  padding: 8px;
  display: grid;
  gap: 6px;
  align-content: start;
  grid-auto-rows: max-content;
  overflow-y: auto;
}
.lane.over {
  background: var(--verdigris-wash);
}
h3 {
  font-size: 14px;
}
</style>
