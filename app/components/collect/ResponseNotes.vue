<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { ResponseDetails } from '#shared/api/responses'
import { callApi } from '~/api/callApi'

/** What colleagues have noted about a response, and a new note, which others can be told of. */
const props = defineProps<{ response: string; history: ResponseDetails['history'] }>()
const collect = useCollect()
const { refusal, busy, attempt } = useRefusable()
const notes = computed(() => props.history.filter(h => h.kind === 'noted'))
const isOpen = ref(false)
const text = ref('')
const tells = ref<string[]>([])
const colleagues = computed(() =>
  (collect.workbench?.readers ?? []).map(r => ({
    value: r.email,
    title: r.name,
    props: { subtitle: r.email },
  })),
)
// Another response is read: what was begun for the one before is not for this one.
watch(
  () => props.response,
  () => (isOpen.value = false),
)
const keep = () =>
  attempt(async () => {
    await callApi(API.noteResponse, {
      params: { id: props.response },
      body: { text: text.value, tells: tells.value },
    })
    text.value = ''
    tells.value = []
    isOpen.value = false
    await collect.changed()
  })
</script>

<template>
  <section aria-label="Notes">
    <p
      v-for="(n, i) in notes"
      :key="i"
      class="note"
    >
      {{ n.remark }}
      <span class="small quiet">{{ n.who }}, {{ readableDay(n.at) }}</span>
    </p>
    <v-btn
      v-if="!isOpen"
      variant="text"
      @click="isOpen = true"
      >+ note</v-btn
    >
    <div
      v-else
      class="new"
    >
      <v-textarea
        v-model="text"
        rows="3"
        autofocus
        aria-label="Note"
        maxlength="2000"
      />
      <v-autocomplete
        v-model="tells"
        :items="colleagues"
        multiple
        chips
        closable-chips
        placeholder="Tell colleagues of it"
        aria-label="Tell colleagues of it"
      />
      <RefusalAlert :refusal="refusal" />
      <div class="row-flex">
        <v-btn
          :disabled="busy || text.trim() === ''"
          @click="keep"
          >Keep the note</v-btn
        >
        <v-btn
          variant="text"
          @click="isOpen = false"
          >Leave it</v-btn
        >
      </div>
    </div>
  </section>
</template>

<style scoped>
.note {
  background: var(--linen);
  padding: 6px 10px;
  margin: 6px 0;
  white-space: pre-line;
  overflow-wrap: anywhere;
}
.note .small {
  display: block;
}
.new {
  display: grid;
  gap: 8px;
}
</style>
