<script setup lang="ts">
import { isRecord } from '#core/form/answers'
import { gridSteps } from '#core/form/notApplicable'
import type { WidgetEmits, WidgetProps } from './widget'

/** Several rows on one scale: a table where there is room, stacked questions where there is not. */
const props = defineProps<WidgetProps<'grid'>>()
const emit = defineEmits<WidgetEmits>()
const steps = computed(() => gridSteps(props.question))
const given = computed(() => (isRecord(props.value) ? props.value : {}))
function choose(row: string, code: string) {
  emit('answer', { ...given.value, [row]: code })
  emit('left')
}
</script>

<template>
  <div
    class="grid"
    :style="{ '--columns': steps.length }"
  >
    <div
      class="head"
      aria-hidden="true"
    >
      <span /><span
        v-for="o in steps"
        :key="o.code"
        class="small quiet"
        >{{ o.label }}</span
      >
    </div>
    <div
      v-for="(r, i) in question.rows"
      :key="r.code"
      class="row"
      role="radiogroup"
      :aria-labelledby="`${id}-${r.code}`"
      :aria-required="required || undefined"
      :aria-invalid="(invalid && !given[r.code]) || undefined"
    >
      <span
        :id="`${id}-${r.code}`"
        class="row-label"
        >{{ r.label }}</span
      >
      <label
        v-for="(o, j) in steps"
        :key="o.code"
        :class="{ chosen: given[r.code] === o.code }"
      >
        <input
          :id="i === 0 && j === 0 ? id : undefined"
          type="radio"
          :name="`${id}-${r.code}`"
          :checked="given[r.code] === o.code"
          :aria-label="o.label"
          @change="choose(r.code, o.code)"
        />
        <span
          class="narrow"
          aria-hidden="true"
          >{{ o.label }}</span
        >
      </label>
    </div>
  </div>
</template>

<style scoped>
.grid {
  border: 1px solid var(--control-line);
  background: var(--paper);
}
.head,
.row {
  display: grid;
  grid-template-columns: minmax(120px, 1.6fr) repeat(var(--columns), minmax(0, 1fr));
  align-items: center;
}
.head span {
  text-align: center;
  padding: 8px 4px;
  overflow-wrap: anywhere;
}
.row {
  border-top: 1px solid var(--line);
}
.row-label {
  padding: 8px 14px;
}
label {
  display: grid;
  place-items: center;
  min-height: 44px;
  cursor: pointer;
}
label.chosen {
  background: var(--verdigris-wash);
}
label:has(:focus-visible) {
  outline: 2px solid var(--woad);
  outline-offset: -2px;
}
label input:focus-visible {
  outline: none;
}
input {
  width: 18px;
  height: 18px;
  accent-color: var(--verdigris);
  margin: 0;
}
.narrow {
  display: none;
}
@container answers (max-width: 460px) {
  .head {
    display: none;
  }
  .row {
    grid-template-columns: 1fr;
    padding: 8px 0;
  }
  .row-label {
    font-weight: 600;
  }
  .narrow {
    display: inline;
  }
  label {
    grid-template-columns: auto 1fr;
    gap: 12px;
    justify-items: start;
    padding: 0 14px;
  }
}
</style>
