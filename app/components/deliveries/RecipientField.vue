<script setup lang="ts">
import { API } from '#shared/api/endpoints'
import type { Recipient } from '#core/form/deliveries'
import { callApi } from '~/api/callApi'
import { withNamed } from './deliveryWords'

/** To whom something goes: the address that an answer gives, some addresses, or a team. */
const props = defineProps<{
  to: Recipient
  emails: readonly { value: string; title: string }[]
  number: number
}>()
const emit = defineEmits<{ change: [to: Recipient] }>()
const KINDS = [
  { value: 'answer', title: 'the address under' },
  { value: 'addresses', title: 'addresses' },
  { value: 'team', title: 'the team' },
] as const
const { data: directory } = useLazyAsyncData('directory', () => callApi(API.loadDirectory), {
  server: false,
})
const teams = computed(() => (directory.value?.teams ?? []).map(t => ({ value: t.name, title: t.name })))
type Kind = (typeof KINDS)[number]['value']
const kind = computed((): Kind => {
  if ('answer' in props.to) return 'answer'
  return 'team' in props.to ? 'team' : 'addresses'
})
function setKind(next: Kind) {
  if (next === 'answer') emit('change', { answer: props.emails[0]?.value ?? 'email' })
  else if (next === 'team') emit('change', { team: teams.value[0]?.value ?? 'Team' })
  else emit('change', { addresses: ['office@wherry.example'] })
}
const typed = computed(() => ('addresses' in props.to ? props.to.addresses.join(', ') : ''))
function setAddresses(text: string) {
  const addresses = text.split(/[\s,;]+/).filter(a => a.includes('@'))
  if (addresses.length > 0) emit('change', { addresses })
}
</script>

<template>
  <label
    >To
    <v-select
      :model-value="kind"
      :items="KINDS"
      :aria-label="`Number ${number}: to whom`"
      @update:model-value="setKind"
  /></label>
  <label
    ><span class="quiet">&nbsp;</span>
    <v-select
      v-if="'answer' in to"
      :model-value="to.answer"
      :items="emails"
      :aria-label="`Number ${number}: under which question`"
      no-data-text="No question asks for an e-mail address."
      @update:model-value="emit('change', { answer: $event })" />
    <v-select
      v-else-if="'team' in to"
      :model-value="to.team"
      :items="withNamed(teams, to.team)"
      :aria-label="`Number ${number}: which team`"
      @update:model-value="emit('change', { team: $event })" />
    <v-text-field
      v-else
      :model-value="typed"
      :aria-label="`Number ${number}: addresses`"
      @change="setAddresses(inputText($event))"
  /></label>
</template>

<style scoped>
label {
  display: grid;
  gap: 4px;
  font-size: 13px;
}
</style>
