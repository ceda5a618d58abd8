<script setup lang="ts">
import { LIMITS } from '#core/form/limits'
import type { Turn } from '#core/form/turns'
import { ADDRESS, isSeveral, withRotation } from '~/composables/write/useTurns'

/** How a turn is taken: signed in or by a link, how long that is good, by when it is due, and what happens before and after that. */
const props = defineProps<{ turn: Turn; name: string; isFirst: boolean }>()
const emit = defineEmits<{ change: [part: Partial<Turn>] }>()
const DEFAULT_DAYS = 5
const DAYS = [
  { value: 'none', title: 'no due day' },
  { value: 'days', title: 'days' },
  { value: 'working', title: 'working days' },
]
const dueKind = computed(() => {
  if (!props.turn.due) return 'none'
  return props.turn.due.working ? 'working' : 'days'
})
function setDueKind(kind: string) {
  if (kind === 'none') {
    emit('change', { due: undefined, reminders: undefined, escalation: undefined })
    return
  }
  const days = props.turn.due?.days ?? DEFAULT_DAYS
  emit('change', { due: kind === 'working' ? { days, working: true } : { days } })
}
function setDueDays(days: number | null) {
  const { due } = props.turn
  if (due && days !== null) emit('change', { due: { ...due, days } })
}
const remindersText = computed(() => (props.turn.reminders ?? []).join(', '))
const wrong = ref('')
function setReminders(text: string) {
  const days = text
    .split(/[\s,;]+/)
    .filter(Boolean)
    .map(Number)
  const isFine =
    days.length <= LIMITS.reminders && days.every(d => Number.isInteger(d) && Math.abs(d) <= LIMITS.dueDays)
  wrong.value = isFine ? '' : `Reminders are up to ${LIMITS.reminders} whole numbers of days, such as -2, 1.`
  if (isFine) emit('change', { reminders: days.length > 0 ? days : undefined })
}
function setEscalationTo(text: string) {
  const to = text.trim()
  if (to === '') {
    wrong.value = ''
    emit('change', { escalation: undefined })
    return
  }
  wrong.value = ADDRESS.test(to) ? '' : `“${to}” is no e-mail address.`
  if (wrong.value === '')
    emit('change', { escalation: { after: props.turn.escalation?.after ?? DEFAULT_DAYS, to } })
}
function setEscalationDays(after: number | null) {
  const { escalation } = props.turn
  if (escalation && after !== null) emit('change', { escalation: { ...escalation, after } })
}
</script>

<template>
  <div class="row-flex timing small">
    <label
      class="row-flex"
      title="Only who is signed in as one of those who are to act"
      ><v-checkbox-btn
        :model-value="turn.signIn === true"
        density="compact"
        @update:model-value="emit('change', { signIn: $event ? true : undefined })"
      />
      signed in</label
    >
    <label
      v-if="isSeveral(turn.by)"
      class="row-flex"
      ><v-checkbox-btn
        :model-value="turn.by.rotate === true"
        density="compact"
        @update:model-value="emit('change', { by: withRotation(turn.by, $event) })"
      />
      one after the other</label
    >
    <label
      v-if="!turn.signIn && !isFirst"
      class="row-flex quiet"
      >links good for
      <NumberField
        whole
        :min="1"
        :aria-label="`${name}: days that links are good`"
        :model-value="turn.linkDays ?? null"
        @update:model-value="emit('change', { linkDays: $event ?? undefined })"
      />
      days</label
    >
    <template v-if="!isFirst">
      <span class="quiet">due in</span>
      <NumberField
        v-if="turn.due"
        whole
        :min="0"
        :aria-label="`${name}: days until it is due`"
        :model-value="turn.due.days"
        @update:model-value="setDueDays"
      />
      <v-select
        class="kind"
        :model-value="dueKind"
        :items="DAYS"
        :aria-label="`${name}: due`"
        @update:model-value="setDueKind"
      />
    </template>
    <template v-if="turn.due && !isFirst">
      <label class="row-flex quiet"
        >reminders
        <v-text-field
          class="days"
          :model-value="remindersText"
          placeholder="-2, 1"
          title="Days from the due day: -2 is two days before, 1 the day after"
          :aria-label="`${name}: reminders, in days from the due day`"
          @change="setReminders(inputText($event))"
      /></label>
      <label class="row-flex quiet"
        >when late, to
        <v-text-field
          class="to"
          :model-value="turn.escalation?.to ?? ''"
          placeholder="nobody else"
          :aria-label="`${name}: who gets it when it is late`"
          @change="setEscalationTo(inputText($event))"
      /></label>
      <label
        v-if="turn.escalation"
        class="row-flex quiet"
        >after
        <NumberField
          whole
          :min="0"
          :aria-label="`${name}: days after it was due`"
          :model-value="turn.escalation.after"
          @update:model-value="setEscalationDays"
        />
        days</label
      >
    </template>
  </div>
  <RefusalAlert :refusal="wrong" />
</template>

<style scoped>
.timing {
  flex-wrap: wrap;
  gap: 6px 14px;
}
.kind {
  flex: 0 1 150px;
}
.days {
  flex: 0 0 90px;
}
.to {
  flex: 0 0 200px;
}
label {
  flex-wrap: nowrap;
}
</style>
