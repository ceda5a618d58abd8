<script setup lang="ts">
import { DOES_NOT_APPLY, mayNotApply, notApplicableLabel, saysNotApplicable } from '#core/form/notApplicable'
import type { WidgetEmits, WidgetProps } from './widget'

const props = defineProps<WidgetProps<'scale'>>()
const emit = defineEmits<WidgetEmits>()
const steps = computed(() =>
  Array.from(
    { length: Math.max(0, props.question.max - props.question.min + 1) },
    (_, i) => props.question.min + i,
  ),
)
const words = (n: number) => {
  const { min, max, low, middle, high } = props.question
  if (n === min && low) return `${n}, ${low}`
  if (n === max && high) return `${n}, ${high}`
  if (n * 2 === min + max && middle) return `${n}, ${middle}`
  return String(n)
}
const isLeft = computed(() => saysNotApplicable(props.value))
function choose(answer: number | typeof DOES_NOT_APPLY) {
  emit('answer', answer)
  emit('left')
}
</script>

<template>
  <div>
    <div class="steps">
      <label
        v-for="(n, i) in steps"
        :key="n"
        :class="{ chosen: value === n }"
      >
        <v-radio
          :id="i === 0 ? id : undefined"
          :name="id"
          :value="n"
          :model-value="value === n ? n : null"
          :aria-label="words(n)"
          @change="choose(n)"
        />
        <span
          aria-hidden="true"
          class="num"
          >{{ n }}</span
        >
      </label>
    </div>
    <div
      v-if="question.low || question.middle || question.high"
      class="ends small quiet"
      aria-hidden="true"
    >
      <span>{{ question.low }}</span><span
        v-if="question.middle"
        class="middle"
        >{{ question.middle }}</span
      ><span class="high">{{ question.high }}</span>
    </div>
    <label
      v-if="mayNotApply(question)"
      class="beside"
      :class="{ chosen: isLeft }"
    >
      <v-radio
        :name="id"
        value="not applicable"
        :model-value="isLeft ? 'not applicable' : null"
        :aria-label="notApplicableLabel(question)"
        @change="choose(DOES_NOT_APPLY)"
      />
      <span aria-hidden="true">{{ notApplicableLabel(question) }}</span>
    </label>
  </div>
</template>

<style scoped>
.steps {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  max-width: 560px;
}
label {
  display: grid;
  place-items: center;
  min-height: 44px;
  border: 1px solid var(--control-line);
  margin-inline-start: -1px;
  background: var(--paper);
  cursor: pointer;
  position: relative;
}
label:first-child {
  margin-inline-start: 0;
}
.beside {
  margin: 8px 0 0;
  padding: 0 14px;
  justify-self: start;
  width: fit-content;
}
label.chosen {
  background: var(--verdigris);
  border-color: var(--verdigris);
  color: var(--on-action);
  font-weight: 700;
}
label:has(:focus-visible) {
  outline: 2px solid var(--woad);
  outline-offset: 2px;
  z-index: 2;
}
.v-selection-control {
  position: absolute;
  inset: 0;
  place-self: stretch;
  width: 100%;
  height: 100%;
  opacity: 0;
}
.v-selection-control :deep(.v-selection-control__wrapper),
.v-selection-control :deep(.v-selection-control__input) {
  width: 100%;
  height: 100%;
}
.ends {
  display: flex;
  gap: 16px;
  max-width: 560px;
  margin-top: 4px;
}
.ends span {
  flex: 1;
}
.middle {
  text-align: center;
}
.high {
  text-align: end;
}
@container answers (max-width: 420px) {
  .steps:has(label:nth-child(8)) {
    grid-auto-flow: row;
    grid-template-columns: repeat(auto-fit, minmax(46px, 1fr));
    gap: 4px;
  }
  .steps:has(label:nth-child(8)) label {
    margin-inline-start: 0;
  }
}
</style>
