<script setup lang="ts">
import type { FormBrief } from '#shared/api/forms'

/** A copy of a form gets a title of its own; its code follows. */
const props = defineProps<{ form: FormBrief }>()
const emit = defineEmits<{ close: []; copy: [title: string] }>()
const title = ref(`${props.form.title}, copy`)
const submit = () => title.value.trim() && emit('copy', title.value.trim())
</script>

<template>
  <PlainDialog
    :title="`Duplicate “${form.title}”`"
    :width="480"
    @close="emit('close')"
  >
    <form
      id="copy-form"
      @submit.prevent="submit"
    >
      <v-text-field
        v-model="title"
        data-first
        label="Title of the copy"
        maxlength="500"
        @focus="$event.target.select()"
      />
    </form>
    <p class="small quiet">The draft is copied with its lists. Releases and responses stay with the first.</p>
    <template #actions>
      <v-btn @click="emit('close')"> Cancel </v-btn
      ><v-btn
        type="submit"
        form="copy-form"
        variant="flat"
        color="primary"
        :disabled="!title.trim()"
      >
        Duplicate
      </v-btn>
    </template>
  </PlainDialog>
</template>
