<script setup lang="ts">
/** A dialog: its title, what it is about, and what can be done. It stands there until it is closed. */
defineProps<{ title: string; asks?: boolean; width?: number }>()
const emit = defineEmits<{ close: [] }>()
const close = () => emit('close')
const card = useTemplateRef('card')
/** What is marked as first has the focus, else the first field or button. */
function focusFirst() {
  const element: unknown = card.value?.$el
  if (!(element instanceof HTMLElement)) return
  const first = element.querySelector<HTMLElement>('[data-first]')
  const any = element.querySelector<HTMLElement>('input, textarea, button')
  ;(first ?? any)?.focus()
}
watch(card, () => void nextTick(focusFirst))
</script>

<template>
  <v-dialog
    model-value
    :role="asks ? 'alertdialog' : 'dialog'"
    :aria-label="title"
    :max-width="width"
    @update:model-value="close"
  >
    <v-card ref="card">
      <h2>{{ title }}</h2>
      <div class="about"><slot /></div>
      <div class="row-flex">
        <slot name="actions">
          <v-btn @click="close"> Close </v-btn>
        </slot>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.v-card {
  padding: 18px 20px;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto;
  gap: 12px;
}
h2 {
  font-size: 17px;
}
.about {
  display: grid;
  gap: 8px;
  overflow-y: auto;
  /* Room for the focus ring. */
  padding: 3px;
  margin: -3px;
}
</style>
