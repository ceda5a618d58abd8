<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { Delivery, DeliveryAct } from '#core/form/deliveries'
import { placeName } from '#core/form/walk'
import { turnName } from '#core/parties/turns'
import { ACTS, EVENTS, newAct, sayDelivery } from './deliveryWords'

/** One thing that happens by itself: a sentence, that opens to be changed and to be tried out. */
const props = defineProps<{ delivery: Delivery; number: number; isNew: boolean }>()
const emit = defineEmits<{
  change: [delivery: Delivery, merge: string]
  remove: []
  move: [from: number, to: number]
}>()
const draft = useDraft()
const isOpen = ref(props.isNew)
const last = computed(() => draft.places.findLast(p => p.kind === 'section'))
const turns = computed(() =>
  (draft.form?.turns ?? []).map(t => ({
    value: t.code,
    title: draft.form ? turnName(draft.form, t) : t.code,
  })),
)
const anyTurn = computed(() => [{ value: '', title: 'any turn' }, ...turns.value])
const emails = computed(() =>
  draft.places
    .filter(p => p.kind === 'question' && p.node.type === 'email' && p.entryOf === null)
    .map(p => ({ value: p.code, title: placeName(p) })),
)
const nameOf = (code: string) => emails.value.find(e => e.value === code)?.title ?? code
const turnOf = (code: string) => turns.value.find(t => t.value === code)?.title ?? code
const sentence = computed(() => sayDelivery(props.delivery, nameOf, turnOf))
const events = computed(() => EVENTS.filter(e => e.value !== 'handedOn' || turns.value.length > 0))
/** A part that is empty goes out. */
function put(part: Partial<Record<keyof Delivery, unknown>>, merge: string) {
  const whole: Delivery = Object.assign({}, props.delivery, part)
  const { code, title, on, act, ...others } = whole
  const kept = Object.fromEntries(
    Object.entries(others).filter(([, v]) => v !== undefined && v !== '' && v !== null),
  )
  emit('change', { code, title, on, act, ...kept }, merge)
}
const putAct = (act: DeliveryAct, merge: string) => put({ act }, merge)
const setKind = (kind: DeliveryAct['do']) =>
  putAct(newAct(kind, props.delivery.act, emails.value[0]?.value ?? null), 'act')
</script>

<template>
  <div
    class="sheet delivery"
    data-moves
  >
    <div class="row-flex head">
      <DragHandle
        :name="`Move number ${number}`"
        :at="number - 1"
        among="deliveries"
        @move="(from, to) => emit('move', from, to)"
      />
      <div class="said">
        <strong v-if="delivery.title">{{ delivery.title }}</strong>
        <span class="small">{{ sentence }}</span>
        <RuleSentence
          v-if="delivery.when !== undefined && !isOpen"
          class="small"
          words="when"
          :text="delivery.when"
        />
      </div>
      <span class="spread" />
      <v-btn
        variant="text"
        :aria-expanded="isOpen"
        :aria-label="isOpen ? `Done with number ${number}` : `Change number ${number}`"
        @click="isOpen = !isOpen"
      >
        {{ isOpen ? 'done' : 'change' }}
      </v-btn>
      <IconButton
        :icon="mdiClose"
        :name="`Remove number ${number}`"
        @click="emit('remove')"
      />
    </div>
    <template v-if="isOpen && last">
      <div class="fields">
        <label
          >Called
          <v-text-field
            :model-value="delivery.title"
            placeholder="Confirmation to the owner"
            :aria-label="`Number ${number}: what it is called`"
            maxlength="500"
            @input="put({ title: inputText($event) }, 'title')"
        /></label>
        <label
          >When
          <v-select
            :model-value="delivery.on"
            :items="events"
            :aria-label="`Number ${number}: when`"
            @update:model-value="put({ on: $event, turn: undefined, tray: undefined }, 'on')"
        /></label>
        <label v-if="delivery.on === 'handedOn'"
          >Which turn
          <v-select
            :model-value="delivery.turn ?? ''"
            :items="anyTurn"
            :aria-label="`Number ${number}: which turn`"
            @update:model-value="put({ turn: $event }, 'turn')"
        /></label>
        <label v-if="delivery.on === 'tray'"
          >Which tray
          <v-text-field
            :model-value="delivery.tray ?? ''"
            placeholder="any tray"
            :aria-label="`Number ${number}: which tray`"
            maxlength="80"
            @input="put({ tray: inputText($event) }, 'tray')"
        /></label>
        <label
          >Hours after
          <NumberField
            :model-value="delivery.after ?? null"
            whole
            :min="1"
            @update:model-value="put({ after: $event ?? undefined }, 'after')"
        /></label>
      </div>
      <RuleField
        words="Done when"
        :text="delivery.when"
        :place="last"
        :part="delivery.code"
        @change="put({ when: $event ?? undefined }, 'when')"
        ><template #none><span class="small quiet">always</span></template></RuleField
      >
      <div class="fields">
        <label
          >Then
          <v-select
            :model-value="delivery.act.do"
            :items="ACTS"
            :aria-label="`Number ${number}: what happens`"
            @update:model-value="setKind"
        /></label>
        <ActFields
          :act="delivery.act"
          :place="last"
          :emails="emails"
          :number="number"
          @change="putAct"
        />
      </div>
      <DeliveryTrial :delivery="delivery" />
    </template>
  </div>
</template>

<style scoped>
.delivery {
  padding: 8px 12px;
  display: grid;
  gap: 10px;
}
.head {
  flex-wrap: nowrap;
}
.said {
  display: grid;
  gap: 2px;
}
.fields {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
  gap: 10px;
  align-items: start;
}
label {
  display: grid;
  gap: 4px;
  font-size: 13px;
}
</style>
