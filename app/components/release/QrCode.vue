<script setup lang="ts">
import { toDataURL, toString } from 'qrcode'

/** An address as a QR code (ISO/IEC 18004), to be looked at and taken away as a drawing or a picture. */
const props = defineProps<{ address: string; name: string }>()
/** Pixels of the picture: sharp on a printed page as broad as a hand. */
const WIDTH = 1_200
const OPTIONS = { errorCorrectionLevel: 'M', margin: 4 } as const
const svg = ref('')
watchEffect(async () => {
  svg.value = await toString(props.address, { ...OPTIONS, type: 'svg' })
})
const shown = computed(() => `data:image/svg+xml,${encodeURIComponent(svg.value)}`)
const fileName = computed(() => props.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase())
async function savePicture() {
  const data = await toDataURL(props.address, { ...OPTIONS, width: WIDTH })
  const bytes = Uint8Array.from(atob(data.split(',')[1] ?? ''), c => c.charCodeAt(0))
  download(`${fileName.value}.png`, [bytes], 'image/png')
}
const saveDrawing = () => download(`${fileName.value}.svg`, [svg.value], 'image/svg+xml')
</script>

<template>
  <div class="qr">
    <img
      v-if="svg"
      :src="shown"
      :alt="`QR code of ${address}`"
      width="200"
      height="200"
    />
    <div class="row-flex">
      <v-btn @click="saveDrawing"> SVG </v-btn>
      <v-btn @click="savePicture"> PNG </v-btn>
    </div>
  </div>
</template>

<style scoped>
.qr {
  display: grid;
  gap: 10px;
  justify-items: start;
}
img {
  border: 1px solid var(--line);
}
</style>
