<script setup lang="ts">
import { mdiDownloadOutline } from '@mdi/js'
import type { OfferedDocument } from '#shared/api/documents'
import { callLink } from '~/api/callLink'
import { download } from '~/browser/download'

/** The documents that whoever has sent a response is offered, as PDF files. */
const props = defineProps<{ documents: readonly OfferedDocument[]; token: string; sendingKey: string }>()
const { refusal, busy, attempt } = useRefusable()
const fetching = ref('')

const take = (code: string) =>
  attempt(async () => {
    fetching.value = code
    const body = { key: props.sendingKey, code }
    const { name, content } = await callLink('fetchDocument', { params: { token: props.token }, body })
    const bytes = Uint8Array.from(atob(content), sign => sign.charCodeAt(0))
    download(name, [bytes], 'application/pdf')
  })
</script>

<template>
  <section
    class="offered"
    aria-label="Documents for you"
  >
    <h2>For you</h2>
    <v-btn
      v-for="d in documents"
      :key="d.code"
      class="big"
      :prepend-icon="mdiDownloadOutline"
      :loading="busy && fetching === d.code"
      :disabled="busy"
      @click="take(d.code)"
      >{{ d.title }} (PDF)</v-btn
    >
    <RefusalAlert :refusal="refusal" />
  </section>
</template>

<style scoped>
.offered {
  display: grid;
  gap: 10px;
  justify-items: start;
}
h2 {
  font-size: 17px;
}
.big {
  min-height: 46px;
  height: auto;
  padding: 8px 20px;
  white-space: normal;
  text-align: start;
}
</style>
