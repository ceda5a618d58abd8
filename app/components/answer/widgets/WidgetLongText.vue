<script setup lang="ts">
import { fieldAttributes, type WidgetEmits, type WidgetProps } from './widget'

const props = defineProps<WidgetProps<'longText'>>()
const emit = defineEmits<WidgetEmits>()
const count = computed(() => (typeof props.value === 'string' ? [...props.value].length : 0))
</script>

<template>
  <div>
    <v-textarea
      :id="id"
      :error="invalid"
      :rows="question.lines ?? 4"
      :model-value="typeof value === 'string' ? value : ''"
      :placeholder="question.placeholder"
      v-bind="fieldAttributes(props)"
      @input="emit('answer', inputText($event) || null)"
      @blur="emit('left')"
    />
    <p
      v-if="question.maxLength"
      class="small quiet num count"
      aria-hidden="true"
    >
      {{ count }} of {{ question.maxLength }} characters
    </p>
  </div>
</template>

<style scoped>
:deep(textarea) {
  resize: vertical;
}
.count {
  margin-top: 2px;
}
</style>
