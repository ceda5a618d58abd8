<script setup lang="ts">
import { mdiFileDocumentOutline } from '@mdi/js'
import { API } from '#shared/api/endpoints'
import type { SealedFile } from '#shared/api/documents'
import { callApi } from '~/api/callApi'
import { hashOf } from '~/browser/hashOf'

/** Says of a file whether it is, unchanged, one that was given out of a signed document. The file itself does not leave the device. */
definePageMeta({ layout: 'quiet' })
useHead({ title: 'Check a signed file' })
const { refusal, busy, attempt } = useRefusable()
const checked = shallowRef<(SealedFile & { name: string }) | null>(null)
const known = computed(() => checked.value?.known ?? null)

const check = (file: File | undefined) =>
  attempt(async () => {
    checked.value = null
    if (!file) return
    const found = await callApi(API.checkFile, { body: { hash: await hashOf(file) } })
    checked.value = { ...found, name: file.name }
  })
</script>

<template>
  <main class="checking">
    <h1>Check a signed file</h1>
    <p>
      Choose a document that was signed here, as PDF or .docx. The file stays on your device: only a hash of
      it is looked up.
    </p>
    <v-file-input
      placeholder="Choose a file"
      aria-label="The file"
      :prepend-inner-icon="mdiFileDocumentOutline"
      accept=".pdf,.docx"
      :disabled="busy"
      @update:model-value="check([$event].flat()[0])"
    />
    <RefusalAlert :refusal="refusal" />
    <v-alert
      v-if="known && checked"
      type="success"
      role="status"
    >
      <strong>“{{ checked.name }}” is unchanged.</strong>
      <p>“{{ known.title }}”, response {{ known.number }} of “{{ known.form }}”</p>
      <ul>
        <li
          v-for="(s, i) in known.signed"
          :key="i"
        >
          {{ s.name }}<template v-if="s.role">, {{ s.role }}</template
          ><template v-if="s.turn">, {{ s.turn }}</template
          >: {{ [s.place, readableDay(s.at), readableTime(s.at)].filter(Boolean).join(', ') }}
          <strong v-if="s.voidedAt">: no longer stands since {{ readableDay(s.voidedAt) }}</strong>
        </li>
      </ul>
      <p v-if="known.signed.length === 0">Nobody had signed it yet, or not any more.</p>
    </v-alert>
    <v-alert
      v-else-if="checked"
      type="warning"
      role="status"
    >
      <strong>“{{ checked.name }}” is not known here.</strong>
      <p>
        It was not given out of a document that was signed here, or it was changed since: opened and saved
        again, too.
      </p>
    </v-alert>
  </main>
</template>

<style scoped>
.checking {
  width: 100%;
  max-width: 600px;
  box-sizing: border-box;
  margin: 0 auto;
  padding: 36px 16px 80px;
  display: grid;
  gap: 16px;
  overflow-wrap: anywhere;
}
ul {
  padding-left: 18px;
}
</style>
