<script setup lang="ts">
import { offeredNow } from '#core/fill/fill'
import { isRecord, type Answer } from '#core/form/answers'
import { writeInLabel } from '#core/form/types'
import { WRITE_IN } from '#core/form/rows'
import { VCheckboxBtn } from 'vuetify/components/VCheckbox'
import { VRadio } from 'vuetify/components/VRadio'
import type { WidgetEmits, WidgetProps } from './widget'

/** Radio buttons, boxes to tick, or the same as buttons side by side; a write-in asks for its text right below. */
const props = defineProps<WidgetProps<'yesNo' | 'choice' | 'choices'>>()
const emit = defineEmits<WidgetEmits>()
const OwnWords = defineAsyncComponent(() => import('./OwnWords.vue'))
const many = computed(() => props.question.type === 'choices')
const asButtons = computed(() => 'display' in props.question && props.question.display === 'buttons')

interface Shown {
  code: string
  value: Answer
  label: string
  alone: boolean
  picture?: string
  places?: number
}
const writesIn = computed(() => 'writeIn' in props.question && props.question.writeIn !== undefined)
const options = computed((): Shown[] => {
  const { question } = props
  if (question.type === 'yesNo')
    return [
      { code: 'yes', value: true, label: 'Yes', alone: false },
      { code: 'no', value: false, label: 'No', alone: false },
    ]
  const offered = offeredNow(props.frame, props.step)
  const rows = [...(props.step.offer?.rows.values() ?? [])].filter(
    r => offered === null || offered.has(r.code),
  )
  const own = rows.map(r => ({
    code: r.code,
    value: r.code,
    label: r.label,
    alone: r.alone === true,
    picture: r.picture,
    places: r.places,
  }))
  return question.writeIn
    ? [...own, { code: WRITE_IN, value: WRITE_IN, label: writeInLabel(question), alone: false }]
    : own
})
const chosen = computed(() => {
  const given = many.value ? props.value : [props.value]
  return Array.isArray(given) ? given.map(g => (isRecord(g) ? WRITE_IN : g)) : []
})
const isChosen = (o: Shown) => chosen.value.includes(o.value)
const written = computed(() => {
  const own = [props.value].flat().flatMap(g => (isRecord(g) ? [String(g[WRITE_IN] ?? '')] : []))
  return own.length > 0 ? own : ['']
})
const most = computed(() => ('writeIns' in props.question ? (props.question.writeIns ?? 1) : 1))
/** What stands for a choice in the answer: itself, or each of the own words. */
const asAnswers = (o: Shown, texts = written.value): Answer[] =>
  o.code === WRITE_IN && writesIn.value ? texts.map(text => ({ [WRITE_IN]: text })) : [o.value]

function choose(o: Shown) {
  if (!many.value) emit('answer', asAnswers(o)[0] ?? null)
  else {
    const next = isChosen(o)
      ? options.value.filter(p => isChosen(p) && p !== o)
      : options.value.filter(p => p === o || (isChosen(p) && !o.alone && !p.alone))
    emit('answer', next.length === 0 ? null : next.flatMap(p => asAnswers(p)))
  }
  emit('left')
}
function write(texts: readonly string[]) {
  const all = options.value.filter(isChosen).flatMap(p => asAnswers(p, [...texts]))
  emit('answer', many.value ? all : { [WRITE_IN]: texts[0] ?? '' })
}
</script>

<template>
  <div
    class="options"
    :class="{ buttons: asButtons, two: question.type === 'yesNo' }"
  >
    <p
      v-if="options.length === 0"
      class="quiet small"
    >
      There is nothing to choose from with the answers so far.
    </p>
    <template
      v-for="(o, i) in options"
      :key="o.code"
    >
      <label :class="{ chosen: isChosen(o) }">
        <component
          :is="many ? VCheckboxBtn : VRadio"
          :id="i === 0 ? id : undefined"
          :name="id"
          :value="o.code"
          :model-value="isChosen(o) ? o.code : null"
          @change="choose(o)"
        />
        <img
          v-if="o.picture"
          class="pictured looked-picture"
          :src="o.picture"
          alt=""
        />
        <span
          >{{ o.label
          }}<span
            v-if="o.places !== undefined"
            class="quiet small left"
            >{{ o.places }} left</span
          ></span
        >
      </label>
      <OwnWords
        v-if="o.code === WRITE_IN && writesIn && isChosen(o)"
        class="written"
        :texts="written"
        :most="most"
        :label="o.label"
        @write="write"
        @left="emit('left')"
      />
      <div
        v-if="$slots.under && isChosen(o)"
        class="under"
      >
        <slot
          name="under"
          :option="o.code"
        />
      </div>
    </template>
  </div>
</template>

<style scoped>
.options {
  display: grid;
}
label {
  display: flex;
  gap: 12px;
  align-items: center;
  font-size: 15px;
  min-height: 44px;
  padding: 4px 14px;
  border: 1px solid var(--control-line);
  margin-top: -1px;
  background: var(--paper);
  cursor: pointer;
  box-sizing: border-box;
}
label.chosen {
  background: var(--verdigris-wash);
  border-color: var(--verdigris);
  position: relative;
  z-index: 1;
}
label:has(:focus-visible) {
  outline: 2px solid var(--woad);
  outline-offset: 1px;
  z-index: 2;
  position: relative;
}
label :deep(.v-selection-control__input) {
  outline: none;
}
label .left {
  margin-inline-start: 10px;
}
.pictured {
  width: 96px;
  height: 72px;
  object-fit: cover;
}
.buttons .pictured {
  display: block;
}
.two {
  grid-template-columns: 1fr 1fr;
  max-width: 360px;
}
.two label + label {
  margin-inline-start: -1px;
}
.two .under {
  grid-column: 1 / -1;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.buttons label {
  margin: 0;
  padding: 4px 16px;
}
.buttons label {
  position: relative;
}
.buttons .v-selection-control {
  position: absolute;
  inset: 0;
  opacity: 0;
}
.buttons label.chosen {
  font-weight: 600;
}
.buttons .under,
.buttons .written {
  flex-basis: 100%;
}
.written {
  margin: 6px 0 8px;
}
.under {
  background: var(--soft);
  padding: 16px;
  display: grid;
  gap: 20px;
}
.under:empty {
  display: none;
}
</style>
