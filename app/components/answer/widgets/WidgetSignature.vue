<script setup lang="ts">
import { isRecord } from '#core/form/answers'
import { fieldAttributes, type WidgetEmits, type WidgetProps } from './widget'
import type SignaturePad from 'signature_pad'

/** A signature, typed or drawn. Drawn, it is kept as a path of whole coordinates on a field of 600 × 200. */
const props = defineProps<WidgetProps<'signature'>>()
const emit = defineEmits<WidgetEmits>()
const WIDTH = 600
const HEIGHT = 200
const given = computed(() => (isRecord(props.value) ? props.value : {}))
const typed = computed(() => (typeof given.value.typed === 'string' ? given.value.typed : ''))
const drawn = computed(() => (typeof given.value.drawn === 'string' ? given.value.drawn : ''))
const mode = ref<'type' | 'draw'>(drawn.value ? 'draw' : 'type')
const MODES = [
  { value: 'type', title: 'Type your name' },
  { value: 'draw', title: 'Draw' },
] as const
const canvas = useTemplateRef('canvas')
let pad: SignaturePad | null = null

watch(
  mode,
  async now => {
    pad?.off()
    pad = null
    if (now !== 'draw') return
    // Only whoever draws needs the drawing.
    const { default: Pad } = await import('signature_pad')
    await nextTick()
    if (!canvas.value) return
    pad = new Pad(canvas.value, {
      penColor: getComputedStyle(canvas.value).color,
      minWidth: 1.5,
      maxWidth: 3,
    })
    pad.addEventListener('endStroke', () => emit('answer', pathOf()))
  },
  { immediate: true },
)
onBeforeUnmount(() => pad?.off())

function pathOf() {
  const box = canvas.value
  if (!pad || !box || pad.isEmpty()) return null
  const scale = WIDTH / box.clientWidth
  const path = pad
    .toData()
    .map(stroke =>
      stroke.points
        .map((p, i) => `${i === 0 ? 'M' : 'L'}${Math.round(p.x * scale)} ${Math.round(p.y * scale)}`)
        .join(' '),
    )
    .join(' ')
  return { drawn: path }
}
function clear() {
  pad?.clear()
  emit('answer', null)
}
</script>

<template>
  <div class="signature">
    <SegmentedChoice
      v-model="mode"
      class="modes"
      :options="MODES"
      name="How to sign"
    />
    <v-text-field
      v-if="mode === 'type'"
      :id="id"
      class="written"
      :error="invalid"
      :model-value="typed"
      maxlength="200"
      autocomplete="name"
      :aria-labelledby="labelledby"
      v-bind="fieldAttributes(props)"
      @input="emit('answer', inputText($event) ? { typed: inputText($event) } : null)"
      @blur="emit('left')"
    />
    <div
      v-else
      class="field-box"
      :class="{ invalid }"
    >
      <canvas
        :id="id"
        ref="canvas"
        :width="WIDTH"
        :height="HEIGHT"
        role="img"
        :aria-label="drawn ? 'Your signature, drawn' : 'A field to sign in, by mouse, pen or finger'"
      />
      <svg
        v-if="drawn && !pad"
        :viewBox="`0 0 ${WIDTH} ${HEIGHT}`"
        aria-hidden="true"
      >
        <path
          :d="drawn"
          fill="none"
          stroke="currentColor"
          stroke-width="2.5"
          stroke-linecap="round"
          stroke-linejoin="round"
        />
      </svg>
      <v-btn
        variant="text"
        @click="clear"
        >Clear the field</v-btn
      >
    </div>
  </div>
</template>

<style scoped>
.signature {
  display: grid;
  gap: 8px;
}
.modes {
  justify-self: start;
}
.written {
  font-style: italic;
  font-size: 19px;
}
.field-box {
  position: relative;
  display: grid;
  justify-items: start;
}
canvas {
  width: 100%;
  aspect-ratio: 3;
  border: 1px solid var(--control-line);
  background: var(--paper);
  color: var(--ink);
  touch-action: none;
  box-sizing: border-box;
}
.invalid canvas {
  border: 2px solid var(--madder);
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  aspect-ratio: 3;
  pointer-events: none;
}
</style>
