<script setup lang="ts">
import { useFarRows } from './useFarRows'
import { ROW_FINDER } from '../keys'
import { isRecord, type Answer } from '#core/form/answers'
import { offeredNow } from '#core/fill/fill'
import { writeInLabel } from '#core/form/types'
import { WRITE_IN, type OfferedRow } from '#core/form/rows'
import OwnWords from './OwnWords.vue'
import { fieldAttributes, withPlaces, type WidgetEmits, type WidgetProps } from './widget'

/** A list that is searched by typing. A long one is searched where it is kept. */
const props = defineProps<WidgetProps<'choice' | 'choices'>>()
const emit = defineEmits<WidgetEmits>()
const many = computed(() => props.question.type === 'choices')
const typed = ref('')
const open = ref(false)

const rows = computed((): OfferedRow[] => {
  const offered = offeredNow(props.frame, props.step)
  const own = [...(props.step.offer?.rows.values() ?? [])]
    .filter(r => offered === null || offered.has(r.code))
    .map(r => ({ ...r, label: withPlaces(r) }))
  return props.question.writeIn ? [...own, { code: WRITE_IN, label: writeInLabel(props.question) }] : own
})
const given = computed((): readonly Answer[] => {
  if (Array.isArray(props.value)) return props.value
  return props.value === null ? [] : [props.value]
})
const codes = computed(() => [...new Set(given.value.map(g => (isRecord(g) ? WRITE_IN : String(g))))])
const chosen = computed(() => (many.value ? codes.value : (codes.value[0] ?? null)))
const written = computed(() => given.value.flatMap(g => (isRecord(g) ? [String(g[WRITE_IN] ?? '')] : [])))
const mostOwn = computed(() => ('writeIns' in props.question ? (props.question.writeIns ?? 1) : 1))
const { far, failed, isFar } = useFarRows(props, typed, open)
/** What is chosen and not on offer, with words for it: a code is nothing to read. */
const gone = computed(() => {
  const known = new Set([...rows.value, ...(isFar.value ? (far.value?.rows ?? []) : [])].map(r => r.code))
  const labelOf = (code: string) =>
    props.step.offer?.rows.get(code)?.label ?? 'a choice that there is no longer'
  return codes.value
    .filter(code => !known.has(code))
    .map(code => ({ code, label: labelOf(code), props: { disabled: true } }))
})
/** What can be chosen; what is chosen already stands among it, so that it has its words. */
const items = computed(() => {
  if (!isFar.value) return [...rows.value, ...gone.value]
  const known = rows.value.filter(r => codes.value.includes(r.code))
  const others = (far.value?.rows ?? []).filter(r => !codes.value.includes(r.code))
  return [...known, ...gone.value, ...others]
})
const more = computed(() => (isFar.value ? (far.value?.count ?? 0) - (far.value?.rows.length ?? 0) : 0))
const nothing = computed(() => {
  if (failed.value) return 'The list can’t be reached just now; type again to try once more.'
  return isFar.value && far.value === null ? 'Looking …' : 'Nothing like this is on offer.'
})

const finder = inject(ROW_FINDER, null)
function put(next: readonly Answer[]) {
  if (next.length === 0) emit('answer', null)
  else emit('answer', many.value ? next : (next[0] ?? null))
}
function choose(next: string | readonly string[] | null) {
  const wanted = [next ?? []].flat()
  for (const code of wanted) {
    const row = far.value?.rows.find(r => r.code === code)
    if (row && isFar.value && props.question.list !== undefined) finder?.remember(props.question.list, row)
  }
  const isOwn = (code: string) => code === WRITE_IN && props.question.writeIn
  const own = (written.value.length > 0 ? written.value : ['']).map(text => ({ [WRITE_IN]: text }))
  put(wanted.flatMap((code): Answer[] => (isOwn(code) ? own : [code])))
  if (many.value) typed.value = ''
}
const write = (texts: readonly string[]) =>
  put([...given.value.filter(g => !isRecord(g)), ...texts.map(text => ({ [WRITE_IN]: text }))])
</script>

<template>
  <div>
    <v-autocomplete
      :id="id"
      v-model:search="typed"
      v-model:menu="open"
      :model-value="chosen"
      :items="items"
      item-title="label"
      item-value="code"
      item-props="props"
      :multiple="many"
      :chips="many"
      :closable-chips="many"
      :no-filter="isFar"
      :custom-filter="hasWords"
      :clearable="!many"
      :error="invalid"
      :placeholder="question.placeholder || 'Type to search'"
      :aria-labelledby="labelledby"
      v-bind="fieldAttributes(props)"
      @update:model-value="choose"
      @blur="emit('left')"
    >
      <template #no-data>
        <v-list-item :title="nothing" />
      </template>
      <template
        v-if="more > 0"
        #append-item
      >
        <v-list-item
          class="quiet"
          :title="`… and ${more} more: type on`"
          disabled
        />
      </template>
    </v-autocomplete>
    <OwnWords
      v-if="written.length > 0"
      class="written"
      :texts="written"
      :most="mostOwn"
      :label="writeInLabel(question)"
      @write="write"
      @left="emit('left')"
    />
  </div>
</template>

<style scoped>
.written {
  margin-top: 6px;
}
</style>
