<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import { TurnAct, type BoardRow } from '#shared/api/board'
import type { Refusal } from '#shared/api/refusal'
import { callApi } from '~/api/callApi'
import { ACTS, type ActKind } from './turnActs'

/** Asks before something is done with a turn in somebody's stead: for whom, to where, and why. */
const props = defineProps<{ row: BoardRow; act: ActKind }>()
const emit = defineEmits<{ close: []; done: [] }>()
const words = computed(() => ACTS.find(a => a.do === props.act))
const reason = ref('')
const addresses = ref('')
const back = ref(props.row.earlier[0]?.turn ?? '')
const earlier = computed(() => props.row.earlier.map(e => ({ value: e.turn, title: e.name })))
const refusal = ref<Refusal | string | null>(null)
const busy = ref(false)
const link = ref<string | null>(null)

const bodyOf = (): unknown => {
  const why = words.value?.asksReason ? { reason: reason.value } : {}
  if (props.act === 'reassign')
    return { do: props.act, to: addresses.value.split(/[\s,;]+/).filter(Boolean), ...why }
  return props.act === 'take back' ? { do: props.act, to: back.value, ...why } : { do: props.act, ...why }
}
async function perform() {
  const body = TurnAct.safeParse(bodyOf())
  if (!body.success) {
    refusal.value = body.error.issues.map(i => `${i.message}.`).join(' ')
    return
  }
  busy.value = true
  refusal.value = null
  try {
    const done = await callApi(API.actOnTurn, { params: { id: props.row.id }, body: body.data })
    link.value = done.link === null ? null : new URL(done.link, window.location.origin).href
    emit('done')
    if (link.value === null) emit('close')
  } catch (error) {
    refusal.value = refusalOf(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <PlainDialog
    v-if="words"
    :title="words.title.replace('…', '')"
    asks
    :width="480"
    @close="emit('close')"
  >
    <p>{{ words.about(row) }}</p>
    <RefusalAlert :refusal="refusal" />
    <template v-if="link">
      <v-text-field
        :model-value="link"
        readonly
        aria-label="The link"
        @focus="$event.target.select()"
      />
      <p class="small quiet">Copy it now: only what it is made from is kept, so it can’t be shown again.</p>
    </template>
    <template v-else>
      <LabelledField
        v-if="act === 'reassign'"
        v-model="addresses"
        label="To whom"
        hint="E-mail addresses; several with commas: whoever of them comes first takes it."
        required
      />
      <label
        v-if="act === 'take back'"
        class="field"
        >To which turn
        <v-select
          v-model="back"
          :items="earlier"
          aria-label="To which turn"
      /></label>
      <LabelledField
        v-if="words.asksReason"
        v-model="reason"
        label="Why"
        hint="It stands in the history of the response."
        required
      />
    </template>
    <template #actions>
      <v-btn @click="emit('close')">{{ link ? 'Done' : 'Leave it' }}</v-btn><v-btn
        v-if="!link"
        :variant="act === 'withdraw' ? undefined : 'flat'"
        :color="act === 'withdraw' ? undefined : 'primary'"
        :class="{ fault: act === 'withdraw' }"
        :disabled="busy"
        @click="perform"
      >
        {{ words.button }}
      </v-btn>
    </template>
  </PlainDialog>
</template>

<style scoped>
.field {
  display: grid;
  gap: 4px;
  font-size: 14px;
}
</style>
