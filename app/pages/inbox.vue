<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { API } from '#shared/api/endpoints'
import type { InboxQuery, TurnInInbox } from '#shared/api/inbox'
import { callApi } from '~/api/callApi'

/** The turns that wait for somebody, and those that they handed on. */
definePageMeta({ middleware: 'designer' })
useHead({ title: 'Inbox · Tobbin' })

const state = ref<InboxQuery['state']>('waiting')
const only = ref<InboxQuery['only']>('all')
const { search, settled, page, size } = usePagedSearch()
const query = computed(() => ({
  state: state.value,
  only: only.value,
  page: page.value,
  size: size.value,
  search: settled.value,
}))
watch([state, only], () => (page.value = 1))
const { data, error, pending, refresh } = await useAsyncData(
  'inbox',
  () => callApi(API.listInbox, { query: query.value }),
  { server: false, watch: [query] },
)
// What was there is gone meanwhile: back to where there is something.
watch(data, found => {
  if (found && found.rows.length === 0 && page.value > 1) page.value = 1
})
/** A turn is taken in a page of its own: what waits is looked at again when somebody comes back. */
useEventListener('focus', () => void refresh())

const STATES = [
  { value: 'waiting', title: 'Waiting' },
  { value: 'handedOn', title: 'Handed on' },
] as const
const ONLY = [
  { value: 'all', title: 'All' },
  { value: 'mine', title: 'Named to me' },
  { value: 'overdue', title: 'Late' },
] as const
const WAITS_FOR: Record<TurnInInbox['waitsFor'], string> = {
  you: 'you',
  team: 'you and others',
  anybody: 'anybody with the link',
}
const headers = computed(() =>
  state.value === 'waiting'
    ? [
        { title: 'Turn', key: 'name' },
        { title: 'Form', key: 'form' },
        { title: 'No.', key: 'response' },
        { title: 'Waits for', key: 'waitsFor' },
        { title: 'Since', key: 'openedAt' },
        { title: 'Due', key: 'dueOn' },
        { title: 'State', key: 'state' },
      ]
    : [
        { title: 'Turn', key: 'name' },
        { title: 'Form', key: 'form' },
        { title: 'No.', key: 'response' },
        { title: 'Handed on', key: 'handedOffAt' },
        { title: 'Now with', key: 'now' },
      ],
)
const stateOf = ({ remark, begunAt, begunBy }: TurnInInbox) => {
  if (remark) return `Given back: ${remark}`
  return begunAt ? sayBegun(begunBy, `${readableDay(begunAt)}, ${readableTime(begunAt)}`) : 'New'
}
const none = computed(() => {
  if (settled.value.trim() !== '' || only.value === 'overdue') return 'No turn is like that.'
  return state.value === 'waiting' ? 'Nothing waits for you.' : 'You have handed nothing on yet.'
})
</script>

<template>
  <div class="inbox-page">
    <TopBar title="Inbox" />
    <main>
      <div class="row-flex head">
        <SegmentedChoice
          v-model="state"
          name="Which turns"
          :options="STATES"
        />
        <SegmentedChoice
          v-if="state === 'waiting'"
          v-model="only"
          name="Of these"
          :options="ONLY"
        />
        <span class="spread" />
        <v-text-field
          v-model="search"
          placeholder="Search forms, numbers and remarks"
          aria-label="Search forms, numbers and remarks"
          maxlength="200"
          class="search"
        />
      </div>
      <RefusalAlert :refusal="error && `The inbox could not be fetched: ${refusalOf(error).sentence}`" />
      <v-data-table-server
        v-if="data"
        v-model:page="page"
        v-model:items-per-page="size"
        :headers="headers"
        :items="data.rows"
        :items-length="data.count"
        :items-per-page-options="[25, 50, 100, 200]"
        :loading="pending"
        disable-sort
        density="compact"
        hover
        fixed-header
        class="sheet"
        :no-data-text="none"
      >
        <template #[`item.name`]="{ item }"
          ><a
            :href="`/f/${item.id}`"
            target="_blank"
            >{{ item.name }}</a
          ></template
        >
        <template #[`item.waitsFor`]="{ item }">{{ WAITS_FOR[item.waitsFor] }}</template>
        <template #[`item.openedAt`]="{ item }">{{ readableDay(item.openedAt) }}</template>
        <template #[`item.dueOn`]="{ item }"
          ><span :class="{ risk: item.isOverdue }">{{ sayDue(item.dueOn, item.isOverdue) }}</span></template
        >
        <template #[`item.handedOffAt`]="{ item }">{{ readableDay(item.handedOffAt ?? '') }}</template>
        <template #[`item.now`]="{ item }">{{
          item.now ?? (item.isWithdrawn ? 'withdrawn' : 'done')
        }}</template>
        <template #[`item.state`]="{ item }">
          <span
            :class="{ quiet: !item.remark && !item.begunAt, risk: item.remark }"
            class="small"
            >{{ stateOf(item) }}</span
          >
        </template>
      </v-data-table-server>
    </main>
  </div>
</template>

<style scoped>
.inbox-page {
  min-height: 100vh;
  display: flex;
  flex-direction: column;
}
main {
  width: 100%;
  max-width: 1040px;
  margin: 0 auto;
  padding: 28px 20px 60px;
  box-sizing: border-box;
  display: grid;
  gap: 14px;
  align-content: start;
}
.search {
  max-width: 260px;
}
</style>
