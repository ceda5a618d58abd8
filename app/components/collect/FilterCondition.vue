<script setup lang="ts">
import { ExpressionError, parseCached } from '#core/expressions/parse'
import { conditionOf } from '#core/expressions/pointed'
import { expressionOf, firstTest, type Condition } from '#core/expressions/pointing'
import { print } from '#core/expressions/print'
import { pointableQuestions } from '#core/form/names'
import { listPlaces } from '#core/form/walk'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** A condition over the answers, built by pointing as rules are; it counts as soon as it is whole. */
const props = defineProps<{ where: string }>()
const emit = defineEmits<{ set: [where: string] }>()
const draft = useDraft()
const params = { id: draft.id }
/** The newest version: its questions are those that responses are filtered by. */
const { data: form, error } = await useAsyncData(
  `filtered-${draft.id}`,
  async () => {
    const revision = draft.releases[0]?.revision ?? null
    if (revision === null) return draft.form
    return (await callApi(API.loadState, { params: { ...params, revision } })).form
  },
  { server: false, deep: false },
)
/** Questions of which the database is not asked: what is worked out, entries, and what is no single value. */
const ASIDE: ReadonlySet<string> = new Set(['value', 'file', 'signature', 'grid', 'ranking'])
const questions = computed(() => {
  if (!form.value) return []
  const places = listPlaces(form.value)
  const end = places.findLast(p => p.kind === 'section')
  if (!end) return []
  const aside = new Set(places.filter(p => p.kind === 'question' && ASIDE.has(p.node.type)).map(p => p.code))
  return pointableQuestions(form.value, places, end).filter(q => q.kind !== 'entries' && !aside.has(q.code))
})
const kindOf = (code: string) => questions.value.find(q => q.code === code)?.kind
/** What is being built, while it is not whole. */
const begun = shallowRef<Condition | null>(null)
const condition = computed((): Condition => {
  if (begun.value) return begun.value
  const written = props.where === '' ? null : readCondition(props.where)
  if (written?.kind === 'group') return written
  return { kind: 'group', mode: 'all', parts: written ? [written] : [firstTest()] }
})
function readCondition(text: string): Condition | null {
  try {
    return conditionOf(parseCached(text), kindOf)
  } catch (cause) {
    if (cause instanceof ExpressionError) return null
    throw cause
  }
}
function change(next: Condition) {
  begun.value = next
  const expr = expressionOf(next)
  if (expr) emit('set', print(expr))
}
function remove() {
  begun.value = null
  emit('set', '')
}
watch(
  () => props.where,
  where => {
    if (where === '') begun.value = null
  },
)
</script>

<template>
  <RefusalAlert
    v-if="error"
    :refusal="`The questions could not be fetched: ${refusalOf(error).sentence}`"
  />
  <ConditionBuilder
    v-else
    :condition="condition"
    :questions="questions"
    @change="change"
    @remove="remove"
  />
</template>
