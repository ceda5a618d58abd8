<script setup lang="ts">
import { LIMITS } from '#core/form/limits'
import type { FormBrief } from '#shared/api/forms'

/** Words by which forms are found again: those that others have are offered. */
const props = defineProps<{ form: FormBrief; known: readonly string[] }>()
const emit = defineEmits<{ close: []; tag: [tags: string[]] }>()
const tags = ref([...props.form.tags])
const clean = computed(() => [...new Set(tags.value.map(t => t.trim().slice(0, LIMITS.tag)).filter(Boolean))])
</script>

<template>
  <PlainDialog
    :title="`Tags of “${form.title}”`"
    :width="480"
    @close="emit('close')"
  >
    <v-combobox
      v-model="tags"
      :items="[...known]"
      multiple
      chips
      closable-chips
      label="Tags"
      placeholder="Type one, Enter for the next"
    />
    <template #actions>
      <v-btn @click="emit('close')"> Cancel </v-btn
      ><v-btn
        variant="flat"
        color="primary"
        :disabled="clean.length > LIMITS.tags"
        @click="emit('tag', clean)"
      >
        Keep
      </v-btn>
    </template>
  </PlainDialog>
</template>
