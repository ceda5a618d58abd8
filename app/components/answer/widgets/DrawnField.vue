<script setup lang="ts">
import { DRAWN_ON } from '#core/fill/drawnSignature'
import type SignaturePad from 'signature_pad'

/** A field to draw a signature on, which is kept as a path of whole coordinates. */
defineProps<{ id: string; drawn: string; invalid?: boolean }>()
const emit = defineEmits<{ draw: [path: string | null] }>()
const { width: WIDTH, height: HEIGHT } = DRAWN_ON
const canvas = useTemplateRef('canvas')
const pad = shallowRef<SignaturePad | null>(null)

onMounted(async () => {
  // Only whoever draws needs the drawing.
  const { default: Pad } = await import('signature_pad')
  if (!canvas.value) return
  pad.value = new Pad(canvas.value, {
    penColor: getComputedStyle(canvas.value).color,
    minWidth: 1.5,
    maxWidth: 3,
  })
  pad.value.addEventListener('endStroke', () => emit('draw', pathOf()))
})
onBeforeUnmount(() => pad.value?.off())

function pathOf(): string | null {
  const box = canvas.value
  if (!pad.value || !box || pad.value.isEmpty()) return null
  const scale = WIDTH / box.clientWidth
  return pad.value
    .toData()
    .map(stroke =>
      stroke.points
        .map((p, i) => `${i === 0 ? 'M' : 'L'}${Math.round(p.x * scale)} ${Math.round(p.y * scale)}`)
        .join(' '),
    )
    .join(' ')
}
function clear() {
  pad.value?.clear()
  emit('draw', null)
}
</script>

<template>
  <div
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
      v-if="drawn && pad?.isEmpty() !== false"
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
</template>

<style scoped>
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
