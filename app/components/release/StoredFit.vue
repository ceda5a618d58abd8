<script setup lang="ts">
import type { Misfit } from '#core/parties/refit'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** What the draft would make of the responses that are there: they stay as they are, but new figures and corrections go by the new version. */
const draft = useDraft()
const params = { id: draft.id }
const { data, error, refresh } = await useAsyncData(
  () => `stored-fit-${draft.id}-${draft.revision}`,
  async () => {
    await draft.flush()
    return callApi(API.weighStored, { params })
  },
  { server: false },
)
const KINDS = [
  { kind: 'missing', words: 'would lack an answer' },
  { kind: 'wrong', words: 'would hold an answer that does not fit' },
  { kind: 'unasked', words: 'would hold an answer that is not asked for' },
] as const
const told = computed(() => KINDS.filter(({ kind }) => (data.value?.[kind] ?? 0) > 0))
const SAID: Record<Misfit['kind'], (label: string, sentence: string) => string> = {
  missing: label => `lacks “${label}”`,
  wrong: (label, sentence) => `“${label}” does not fit (${sentence.replace(/\.$/, '')})`,
  unasked: label => `“${label}” is not asked`,
}
</script>

<template>
  <RefusalAlert
    v-if="error"
    :refusal="`The responses could not be weighed: ${refusalOf(error).sentence}`"
  />
  <div v-else-if="data && data.weighed > 0">
    <h3>For the responses that are there</h3>
    <p
      v-if="told.length === 0"
      class="small"
    >
      ✓ {{ counted(data.weighed, 'response') }} {{ data.weighed === 1 ? 'is' : 'are' }} complete and fit by
      this version as well.
    </p>
    <template v-else>
      <p class="small">
        They stay as they are, on the version that they began. By this one, of
        {{ data.isAll ? data.weighed : `the newest ${data.weighed}` }}:
        <template
          v-for="({ kind, words }, i) in told"
          :key="kind"
          >{{ i > 0 ? '; ' : '' }}<strong>{{ data[kind] }}</strong> {{ words }}</template
        >.
      </p>
      <FoldedPart :title="`Which: ${counted(data.lines.length, 'response')}`">
        <ul class="small">
          <li
            v-for="line in data.lines"
            :key="line.id"
          >
            <NuxtLink :to="`/forms/${draft.id}/collect?response=${line.id}`"
              >Response {{ line.number }}</NuxtLink
            >
            <span class="quiet">
              of version {{ line.release }}{{ line.isDone ? '' : ', in progress' }}:
            </span>
            <template
              v-for="(misfit, i) in line.misfits"
              :key="i"
              >{{ i > 0 ? '; ' : '' }}{{ SAID[misfit.kind](misfit.label, misfit.sentence) }}</template
            ><template v-if="line.more > 0"> and {{ line.more }} more</template>
          </li>
        </ul>
      </FoldedPart>
    </template>
    <v-btn
      variant="text"
      @click="refresh()"
      >Weigh again</v-btn
    >
  </div>
</template>

<style scoped>
h3 {
  font-size: 15px;
  margin-bottom: 6px;
}
ul {
  display: grid;
  gap: 4px;
}
</style>
