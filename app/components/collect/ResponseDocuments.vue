<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { ResponseDocument } from '#shared/api/documents'
import { callApi } from '~/api/callApi'

/** The documents of a response: those that were made, and those that can be. */
const props = defineProps<{ response: string; documents: readonly ResponseDocument[]; mayAct: boolean }>()
const collect = useCollect()
const { refusal, busy, attempt } = useRefusable()
const shown = computed(() => props.documents.filter(d => d.isMeant || d.made.length > 0))
const isPlain = computed(() => shown.value.some(d => d.pdf === 'plain' && d.made.length > 0))
const make = (code: string) =>
  attempt(async () => {
    await callApi(API.makeDocument, { params: { id: props.response }, body: { code } })
    collect.changes += 1
  })
</script>

<template>
  <section
    v-if="shown.length > 0"
    class="documents"
    aria-label="Documents"
  >
    <h3>Documents</h3>
    <div
      v-for="d in shown"
      :key="d.code"
      class="row-flex"
    >
      <span>{{ d.title }}</span>
      <span class="spread" />
      <v-btn
        v-if="mayAct && d.isMeant && !d.signing"
        variant="text"
        :disabled="busy"
        :aria-label="`Make “${d.title}” as the answers are now`"
        @click="make(d.code)"
        >{{ d.made.length > 0 ? 'make anew' : 'make it' }}</v-btn
      >
      <ul v-if="d.made.length > 0">
        <li
          v-for="m in d.made"
          :key="m.id"
          class="small"
        >
          <a
            :href="`/api/responses/${response}/documents/${m.id}`"
            :download="m.name"
            >{{ m.name }}</a
          >
          <a
            class="made"
            :href="`/api/responses/${response}/documents/${m.id}?as=pdf`"
            :aria-label="`${m.name} as PDF`"
            download
            >PDF</a
          >
          <span class="quiet made">{{ readableDay(m.at) }}, {{ readableTime(m.at) }}</span>
        </li>
      </ul>
      <p
        v-else
        class="small quiet whole"
      >
        {{ d.signing ? 'Made when it is signed.' : 'Not made yet.' }}
      </p>
      <ul v-if="d.signing && d.made.length > 0">
        <li
          v-for="(s, i) in d.signing.signed"
          :key="i"
          class="small"
        >
          Signed by {{ s.name }}<template v-if="s.role">, {{ s.role }}</template
          ><template v-if="s.turn"> in “{{ s.turn }}”</template>
          <span class="quiet made">{{ readableDay(s.at) }}, {{ readableTime(s.at) }}</span>
        </li>
        <li
          v-if="d.signing.waiting.length > 0"
          class="small quiet"
        >
          Not signed yet in {{ d.signing.waiting.map(name => `“${name}”`).join(', ') }}
        </li>
        <li
          v-if="d.signing.isOutdated"
          class="small risk"
        >
          Answers of which it tells were changed since: it stays as it was signed.
        </li>
      </ul>
    </div>
    <p
      v-if="isPlain"
      class="small quiet"
    >
      PDF files are set plainly here, from text, tables and pictures: the .docx is exact.
    </p>
    <p
      v-if="shown.some(d => d.signing && d.signing.signed.length > 0)"
      class="small"
    >
      <NuxtLink to="/check">Check whether a signed file is unchanged</NuxtLink>
    </p>
    <RefusalAlert :refusal="refusal" />
  </section>
</template>

<style scoped>
.documents {
  margin: 10px 0;
}
h3 {
  font-size: 15px;
}
.row-flex {
  flex-wrap: wrap;
  gap: 0 8px;
  padding: 3px 0;
}

.made {
  margin-left: 8px;
}
.risk {
  color: var(--weld);
}
ul,
.whole {
  flex-basis: 100%;
  list-style: none;
  padding: 0;
}
</style>
