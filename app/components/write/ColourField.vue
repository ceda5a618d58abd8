<script setup lang="ts">
import { Colour } from '#core/form/look'

/** A colour: typed as the web writes it, or picked. */
const props = defineProps<{ name: string; colour: string | undefined; none: string }>()
const emit = defineEmits<{ change: [colour: string | undefined] }>()
const typed = ref(props.colour ?? '')
watch(
  () => props.colour,
  colour => (typed.value = colour ?? ''),
)
const isWrong = ref(false)
function take(text: string) {
  const colour = text.trim().toLowerCase()
  isWrong.value = colour !== '' && !Colour.safeParse(colour).success
  if (!isWrong.value && colour !== (props.colour ?? '')) emit('change', colour === '' ? undefined : colour)
}
/** The picker says it with how it shines through, too. */
const pick = (text: string) => take(text.slice(0, 7))
</script>

<template>
  <div class="colour">
    <v-menu
      :close-on-content-click="false"
      location="bottom start"
    >
      <template #activator="{ props: activator }">
        <v-btn
          v-bind="activator"
          class="swatch"
          :aria-label="`Pick: ${name}`"
          :style="{ background: colour ?? 'transparent' }"
        />
      </template>
      <v-color-picker
        :model-value="colour ?? '#14655a'"
        mode="hex"
        :modes="['hex']"
        elevation="0"
        hide-eye-dropper
        @update:model-value="pick"
      />
    </v-menu>
    <v-text-field
      v-model="typed"
      class="typed"
      :placeholder="none"
      :aria-label="name"
      :error="isWrong"
      maxlength="7"
      @change="take(inputText($event))"
    />
  </div>
  <p
    v-if="isWrong"
    class="small fault"
    role="alert"
  >
    A colour is written #1f6f78.
  </p>
</template>

<style scoped>
.fault {
  color: var(--madder);
}
.colour {
  display: flex;
  gap: 6px;
}
.swatch {
  width: 32px;
  padding: 0;
}
.typed {
  flex: none;
  width: 180px;
}
</style>
