<script setup lang="ts">
import { useFileDialog } from '@vueuse/core'
import type { Picture } from '#core/form/look'

/** A small picture that stands in the form itself: chosen from a file, described, taken away. */
const props = defineProps<{
  name: string
  picture: Picture | undefined
  /** So many pixels are kept of it, at most. */
  room: { width: number; height: number }
  /** Something beside it says what it shows. */
  isSaid?: boolean
}>()
const emit = defineEmits<{ change: [picture: Picture | undefined] }>()
const problem = ref('')
const dialog = useFileDialog({ accept: 'image/png,image/jpeg,image/webp', multiple: false, reset: true })
dialog.onChange(async files => {
  const [file] = files ?? []
  if (!file) return
  problem.value = ''
  try {
    emit('change', { ...props.picture, data: await shrinkPicture(file, props.room) })
  } catch (error) {
    problem.value = error instanceof Error ? error.message : String(error)
  }
})
function describe(alt: string) {
  if (!props.picture) return
  const { data } = props.picture
  emit('change', alt === '' ? { data } : { data, alt })
}
</script>

<template>
  <div class="picture-field">
    <div class="row-flex">
      <img
        v-if="picture"
        :src="picture.data"
        alt=""
        class="shown"
      />
      <v-btn
        variant="text"
        :aria-label="`${picture ? 'Change' : 'Choose'} the picture: ${name}`"
        @click="dialog.open()"
        >{{ picture ? 'Change…' : 'Choose a picture…' }}</v-btn
      >
      <v-btn
        v-if="picture"
        variant="text"
        :aria-label="`Take away the picture: ${name}`"
        @click="emit('change', undefined)"
        >Take away</v-btn
      >
    </div>
    <v-text-field
      v-if="picture && !isSaid"
      :model-value="picture.alt ?? ''"
      placeholder="what it shows, for those who don’t see it"
      :aria-label="`What the picture shows: ${name}`"
      maxlength="500"
      @input="describe(inputText($event))"
    />
    <p
      v-if="problem"
      class="small fault"
      role="alert"
    >
      {{ problem }}
    </p>
  </div>
</template>

<style scoped>
.picture-field {
  display: grid;
  gap: 4px;
}
.shown {
  max-height: 32px;
  max-width: 120px;
}
.fault {
  color: var(--madder);
}
</style>
