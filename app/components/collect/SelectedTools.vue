<script setup lang="ts">
import { personalCodes } from '#core/form/personal'
import type { ResponseTable } from '#shared/api/responses'
import type { ActedOn, ResponsesAct } from '#shared/api/workbench'
import { ALL_RESPONSES } from '~/composables/useResponseFilter'

/** What can be done with all the responses that are selected. */
defineProps<{ isBin: boolean; columns: ResponseTable['columns'] }>()
const collect = useCollect()
const draft = useDraft()
const { say } = useSaid()
const asking = ref<'delete' | 'delete for good' | 'strip' | 'message' | null>(null)
const left = ref<ActedOn['left']>([])
const { refusal, busy, attempt } = useRefusable()
const count = computed(() => counted(collect.selected.length, 'response'))
const trays = computed(() => [
  ...(collect.workbench?.trays ?? []).map(t => ({ id: t.id, title: t.name })),
  { id: null, title: 'no tray' },
])
const hasPersonal = computed(() => draft.form !== null && personalCodes(draft.form).size > 0)
const SAID = {
  delete: 'deleted',
  'delete for good': 'deleted for good',
  strip: 'without personal answers now',
} as const
const printed = computed(() => `/printed/responses?ids=${collect.selected.join(',')}`)
/** More than these no browser prints at once. */
const MOST_PRINTED = 50

async function act(what: ResponsesAct, said: string) {
  await attempt(async () => {
    const acted = await collect.act(collect.selected, what)
    left.value = acted.left
    collect.selected = []
    asking.value = null
    say(`${counted(acted.done, 'response')} ${said}.`)
  })
}
</script>

<template>
  <div
    class="row-flex tools"
    role="group"
    aria-label="With those selected"
  >
    <strong>{{ count }} selected</strong>
    <template v-if="isBin">
      <template v-if="draft.may('own')">
        <v-btn
          :disabled="busy"
          @click="act({ do: 'put back' }, 'put back')"
          >Put back</v-btn
        >
        <v-btn
          :disabled="busy"
          class="fault"
          @click="asking = 'delete for good'"
          >Delete for good …</v-btn
        >
      </template>
    </template>
    <template v-else>
      <v-menu v-if="trays.length > 1">
        <template #activator="{ props: opens }">
          <v-btn v-bind="opens">Tray …</v-btn>
        </template>
        <v-list>
          <v-list-item
            v-for="t in trays"
            :key="t.title"
            :title="t.title"
            @click="act({ do: 'tray', tray: t.id }, `put into ${t.title}`)"
          />
        </v-list>
      </v-menu>
      <v-btn
        v-if="draft.may('act')"
        @click="asking = 'message'"
        >Message …</v-btn
      >
      <v-btn
        :href="printed"
        target="_blank"
        :disabled="collect.selected.length > MOST_PRINTED"
        :title="collect.selected.length > MOST_PRINTED ? `At most ${MOST_PRINTED} at once` : undefined"
        >Print</v-btn
      >
      <TakeOut
        :form="collect.form"
        :filter="ALL_RESPONSES"
        :count="collect.selected.length"
        :ids="collect.selected"
      />
      <v-btn
        v-if="draft.may('own') && hasPersonal"
        @click="asking = 'strip'"
        >Personal answers …</v-btn
      >
      <v-btn
        v-if="draft.may('own')"
        class="fault"
        @click="asking = 'delete'"
        >Delete …</v-btn
      >
    </template>
    <span class="spread" />
    <v-btn
      variant="text"
      @click="collect.selected = []"
      >Select none</v-btn
    >
  </div>
  <RefusalAlert :refusal="asking ? null : refusal" />
  <MessageDialog
    v-if="asking === 'message'"
    :count="collect.selected.length"
    :columns="columns"
    :busy="busy"
    :refusal="refusal"
    @close="asking = null"
    @post="act({ do: 'message', ...$event }, 'written to')"
  />
  <RemoveDialog
    v-if="asking && asking !== 'message'"
    :what="asking"
    :count="collect.selected.length"
    :busy="busy"
    :refusal="refusal"
    @close="asking = null"
    @remove="act($event, SAID[$event.do])"
  />
  <PlainDialog
    v-if="left.length > 0"
    title="Not done with all"
    :width="480"
    @close="left = []"
  >
    <p
      v-for="l in left"
      :key="l.number"
    >
      Response {{ l.number }}: {{ l.sentence }}
    </p>
  </PlainDialog>
</template>

<style scoped>
.tools {
  background: var(--verdigris-wash);
  padding: 4px 12px;
}
</style>
