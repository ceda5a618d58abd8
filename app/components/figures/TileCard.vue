<script setup lang="ts">
import { mdiArrowLeft, mdiArrowRight, mdiClose } from '@mdi/js'
import type { Dashboard } from '#shared/api/dashboards'
import type { Summary } from '#shared/api/summaries'
import { useSummaries } from '~/composables/collect/useSummaries'
import { figuresOf } from './figure'

/** A figure on a dashboard, as the responses are now. */
type Shown = Dashboard['tiles'][number]
const props = defineProps<{
  tile: Shown
  summaryOf: (tile: Shown) => Promise<Summary>
  isOwn: boolean
  isFirst: boolean
  isLast: boolean
}>()
const emit = defineEmits<{ move: [by: -1 | 1]; takeOff: [] }>()
const { data, refusal } = useSummaries<Summary>(
  () => props.summaryOf(props.tile),
  computed(() => props.tile),
)
const figure = computed(() =>
  data.value?.isReady ? figuresOf(data.value).find(f => f.key === props.tile.figure) : undefined,
)
const isCount = computed(() => props.tile.figure === '')
const isGone = computed(() => data.value?.isReady === true && !isCount.value && !figure.value)
const title = computed(() => props.tile.title || figure.value?.title || props.tile.formTitle)
</script>

<template>
  <div class="tile">
    <div class="row-flex about">
      <NuxtLink
        :to="`/forms/${tile.form}/collect`"
        class="small"
        >{{ tile.formTitle }}</NuxtLink
      >
      <code
        v-if="tile.filter.where"
        class="small quiet where"
        >{{ tile.filter.where }}</code
      >
      <span class="spread" />
      <template v-if="isOwn">
        <IconButton
          class="unprinted"
          :icon="mdiArrowLeft"
          :name="`${title}: further to the front`"
          :disabled="isFirst"
          @click="emit('move', -1)"
        />
        <IconButton
          class="unprinted"
          :icon="mdiArrowRight"
          :name="`${title}: further to the back`"
          :disabled="isLast"
          @click="emit('move', 1)"
        />
        <IconButton
          class="unprinted"
          :icon="mdiClose"
          :name="`Take ${title} off`"
          @click="emit('takeOff')"
        />
      </template>
    </div>
    <RefusalAlert :refusal="refusal" />
    <article
      v-if="isCount && data?.isReady"
      class="sheet number"
      :aria-label="title"
    >
      <h3>{{ title }}</h3>
      <p class="num">{{ data.count }}</p>
      <p class="small quiet">{{ data.count === 1 ? 'response' : 'responses' }}</p>
    </article>
    <FigureCard
      v-else-if="figure"
      :figure="{ ...figure, title }"
      :drills="false"
    />
    <p
      v-else-if="isGone"
      class="sheet number risk"
    >
      “{{ title }}” is not asked by the newest version any more.
    </p>
    <v-skeleton-loader
      v-else-if="!refusal"
      type="image"
      aria-label="The figure is being made"
    />
  </div>
</template>

<style scoped>
.tile {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  grid-template-rows: auto minmax(0, 1fr);
  gap: 2px;
  break-inside: avoid;
}
.about {
  flex-wrap: nowrap;
  min-height: 30px;
}
.where {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.number {
  padding: 10px 16px 12px;
}
.number .num {
  font-size: 40px;
  line-height: 1.2;
}
h3 {
  font-size: 14px;
}
@media print {
  .unprinted {
    display: none;
  }
}
</style>
