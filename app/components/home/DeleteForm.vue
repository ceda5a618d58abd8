<script setup lang="ts">
import type { FormBrief } from '#shared/api/forms'

/** Asks before a form is deleted; one with responses only when its title is typed. */
const props = defineProps<{ form: FormBrief }>()
const emit = defineEmits<{ close: []; delete: [confirmed: string]; archive: [] }>()
const typed = ref('')
const responses = computed(() => props.form.responses ?? 0)
const isSure = computed(() => responses.value === 0 || typed.value.trim() === props.form.title.trim())
</script>

<template>
  <PlainDialog
    :title="`Delete “${form.title}”`"
    asks
    :width="480"
    @close="emit('close')"
  >
    <p v-if="responses === 0">
      The form goes with all its earlier states{{ form.release > 0 ? ' and its link' : '' }}. This can’t be
      taken back.
    </p>
    <template v-else>
      <p>
        <strong>{{ counted(responses, 'response') }}</strong> and their files go with it, and its links lead
        nowhere. This can’t be taken back.
      </p>
      <v-text-field
        v-model="typed"
        :label="`Type “${form.title}” to delete it with them`"
        maxlength="500"
        autocomplete="off"
      />
    </template>
    <template #actions>
      <v-btn
        data-first
        @click="emit('close')"
      >
        Keep it</v-btn
      ><v-btn
        v-if="!form.isArchived"
        @click="emit('archive')"
      >
        Put into the archive</v-btn
      ><v-btn
        class="fault"
        :disabled="!isSure"
        @click="emit('delete', typed)"
      >
        Delete for good
      </v-btn>
    </template>
  </PlainDialog>
</template>
