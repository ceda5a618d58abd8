<script setup lang="ts">
/** What somebody writes in where the choices lack it: one text, or several. */
const props = defineProps<{ texts: readonly string[]; most: number; label: string }>()
const emit = defineEmits<{ write: [texts: string[]]; left: [] }>()
const box = useTemplateRef('box')
const nameOf = (i: number) =>
  props.texts.length > 1 ? `${props.label}: your own words, ${i + 1}` : `${props.label}: your own words`
const change = (i: number, event: Event) => emit('write', props.texts.with(i, inputText(event)))
function add() {
  emit('write', [...props.texts, ''])
  void nextTick(() => [...(box.value?.querySelectorAll('input') ?? [])].at(-1)?.focus())
}
</script>

<template>
  <div
    ref="box"
    class="own-words"
  >
    <v-text-field
      v-for="(text, i) in texts"
      :key="i"
      :model-value="text"
      maxlength="500"
      :aria-label="nameOf(i)"
      :clearable="texts.length > 1"
      @input="change(i, $event)"
      @click:clear="emit('write', texts.toSpliced(i, 1))"
      @blur="emit('left')"
    />
    <v-btn
      v-if="texts.length < most && texts.every(t => t.trim() !== '')"
      variant="text"
      @click="add"
    >
      + another
    </v-btn>
  </div>
</template>

<style scoped>
.own-words {
  display: grid;
  gap: 6px;
}
</style>
