<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { listRestingOnPersonal } from '#core/form/personal'
import { placeName, type PlaceOf } from '#core/form/walk'
import type { Retention } from '#shared/api/workbench'
import { callApi } from '~/api/callApi'

/** How long the responses of a form are kept, and what of them tells of a person. */
const collect = useCollect()
const draft = useDraft()
const { say } = useSaid()
const { refusal, busy, attempt } = useRefusable()
const kept = computed(() => collect.workbench?.retention ?? null)
const ACTS = [
  { value: 'always', title: 'kept for as long as the form is there' },
  { value: 'strip', title: 'kept without the personal answers' },
  { value: 'delete', title: 'put into the bin, and 30 days later deleted' },
] as const
const act = ref<Retention['act'] | 'always'>('always')
const months = ref<number | null>(24)
/** How many responses are older than that today; null until it is counted. */
const older = ref<number | null>(null)
function show(now: Retention | null) {
  act.value = now?.act ?? 'always'
  months.value = now?.months ?? months.value
}
watch(kept, show, { immediate: true })
const wanted = computed((): Retention | null =>
  act.value === 'always' || months.value === null ? null : { act: act.value, months: months.value },
)
const isSame = computed(
  () => wanted.value?.act === kept.value?.act && wanted.value?.months === kept.value?.months,
)
const mayKeep = computed(() => draft.may('own'))
async function countOlder(retention: Retention | null) {
  older.value = null
  if (retention === null || retention.months < 1) return
  const query = { until: monthsAgo(retention.months), size: 1 }
  const { count } = await callApi(API.listResponses, { params: { id: collect.form }, query })
  if (wanted.value === retention) older.value = count
}
watch(wanted, countOlder, { immediate: true })
const olderWords = computed(() => {
  if (older.value === null) return ''
  if (older.value === 0) return 'No response is older than that today.'
  return `${counted(older.value, 'response')} ${older.value === 1 ? 'is' : 'are'} older than that today.`
})
function monthsAgo(count: number): string {
  const day = new Date()
  day.setMonth(day.getMonth() - count)
  return day.toISOString().slice(0, 10)
}
const save = () =>
  attempt(async () => {
    await callApi(API.saveRetention, {
      params: { id: collect.form },
      body: { retention: wanted.value },
    })
    await collect.refresh()
    say('Kept.')
  })
const questions = computed(() => draft.places.filter((p): p is PlaceOf<'question'> => p.kind === 'question'))
const personal = computed(() => questions.value.filter(p => p.node.personal))
/** What most often tells of a person, and is not marked. */
const likely = computed(() =>
  questions.value.filter(({ node }) => {
    if (node.personal) return false
    if (node.type === 'email' || node.type === 'phone' || node.type === 'signature') return true
    return node.type === 'text' && node.autofill !== undefined
  }),
)
const resting = computed(() => (draft.form ? listRestingOnPersonal(draft.form) : []))
</script>

<template>
  <section
    class="keeping"
    aria-label="How long it is kept"
  >
    <h2>How long it is kept</h2>
    <RefusalAlert :refusal="refusal" />
    <form
      class="sheet part"
      @submit.prevent="save"
    >
      <h3>Responses</h3>
      <p class="quiet">
        Counted from the day on which each was sent. What is in progress is left alone. What is due is done
        within the hour, and stands in the history of each response.
      </p>
      <div class="row-flex">
        <template v-if="act !== 'always'">
          <label class="row-flex"
            >After
            <NumberField
              v-model="months"
              whole
              :min="1"
              class="months"
            />
            {{ months === 1 ? 'month' : 'months' }}</label
          >
        </template>
        <span v-else>They are</span>
        <v-select
          v-model="act"
          :items="ACTS"
          :readonly="!mayKeep"
          aria-label="What becomes of them"
          class="act"
        />
        <v-btn
          v-if="mayKeep"
          type="submit"
          :disabled="busy || isSame || (act !== 'always' && wanted === null)"
          >Keep it so</v-btn
        >
      </div>
      <p
        v-if="!mayKeep"
        class="quiet small"
      >
        Only owners of the form change this.
      </p>
      <p
        v-if="olderWords"
        :class="older ? 'risk' : 'quiet'"
      >
        {{ olderWords }}
      </p>
    </form>
    <div class="sheet part">
      <h3>Personal answers</h3>
      <p
        v-if="personal.length === 0"
        class="quiet"
      >
        No question is marked. Mark those whose answers tell of a person at
        <NuxtLink :to="`/forms/${draft.id}/write`">Write</NuxtLink>, under <em>More</em> of each: then their
        answers can be taken out, and the rest stays for figures.
      </p>
      <ul v-else>
        <li
          v-for="p in personal"
          :key="p.code"
        >
          <span class="num quiet">{{ p.number }}</span> {{ placeName(p) }}
        </li>
      </ul>
      <p v-if="likely.length > 0">
        <span class="risk">Not marked, though they may tell of a person:</span>
        {{ likely.map(p => placeName(p)).join(', ') }}.
      </p>
      <p
        v-if="resting.length > 0"
        class="risk"
      >
        Once personal answers are gone, these read as not asked, because their rules rest on them:
        {{ resting.map(p => placeName(p)).join(', ') }}.
      </p>
    </div>
    <div class="sheet part">
      <h3>One person</h3>
      <p class="quiet">
        Find everything about somebody in all the forms that you own, hand it out, or remove it.
      </p>
      <NuxtLink to="/person">Everything about one person</NuxtLink>
    </div>
  </section>
</template>

<style scoped>
.keeping {
  padding: 16px 20px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px;
  align-content: start;
  overflow-y: auto;
}
.part {
  padding: 12px 16px;
  display: grid;
  gap: 8px;
}
.months {
  flex: 0 0 110px;
}
.act {
  flex: 0 1 360px;
}
ul {
  list-style: none;
  padding: 0;
  columns: 2;
}
h3 {
  font-size: 15px;
}
</style>
