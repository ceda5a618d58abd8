<script setup lang="ts">
import { mdiCalendarBlank } from '@mdi/js'
import { dateFromText, dateTimeFromText, readableDate, readableDateTime } from '#core/expressions/dates'

/** A day, with its time where asked: typed as `27 Nov 2026`, which reads one way only, or picked. */
const day = defineModel<string>({ required: true })
const props = defineProps<{ name: string; withTime?: boolean }>()
const refused = ref(false)
const shown = computed(() => {
  if (day.value === '') return ''
  return props.withTime ? readableDateTime(day.value) : readableDate(day.value)
})
const example = computed(() => (props.withTime ? '27 Nov 2026, 10:30' : '27 Nov 2026'))
function take(text: string) {
  const read = props.withTime ? dateTimeFromText(text) : dateFromText(text)
  refused.value = text.trim() !== '' && read === null
  if (!refused.value) day.value = read ?? ''
}
/** A day that was picked keeps the time. */
function pick(date: Date | null) {
  if (date === null) return
  const parts = [date.getFullYear(), date.getMonth() + 1, date.getDate()]
  const iso = parts.map((n, i) => String(n).padStart(i === 0 ? 4 : 2, '0')).join('-')
  refused.value = false
  isOpen.value = false
  day.value = props.withTime ? `${iso}T${day.value.slice(11) || '00:00:00'}` : iso
}
const isOpen = ref(false)
const picked = computed(() => {
  const [year = 0, month = 1, date = 1] = day.value.slice(0, 10).split('-').map(Number)
  return day.value === '' ? null : new Date(year, month - 1, date)
})
</script>

<template>
  <v-text-field
    class="day"
    :class="{ 'with-time': withTime }"
    :model-value="shown"
    :aria-label="name"
    :placeholder="example"
    :error-messages="refused ? `Write it as ${example}.` : ''"
    hide-details="auto"
    @change="take(inputText($event))"
  >
    <template #append-inner>
      <v-menu
        v-model="isOpen"
        :close-on-content-click="false"
        location="bottom end"
      >
        <template #activator="{ props: activator }">
          <IconButton
            v-bind="activator"
            :icon="mdiCalendarBlank"
            :name="`Pick: ${name}`"
          />
        </template>
        <v-date-picker
          :model-value="picked"
          hide-header
          show-adjacent-months
          first-day-of-week="1"
          @update:model-value="pick"
        />
      </v-menu>
    </template>
  </v-text-field>
</template>

<style scoped>
.day {
  width: 158px;
}
.day :deep(.v-input__details) {
  padding-inline: 0;
}
.day :deep(.v-messages__message) {
  white-space: nowrap;
  font-family: var(--text-font);
}
.with-time {
  width: 204px;
}
</style>
