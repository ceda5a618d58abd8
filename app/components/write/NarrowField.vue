<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { narrowingsBy } from '#core/lists/levels'
import { indexRows } from '#core/lists/listIndex'
import { ExpressionError, parse } from '#core/expressions/parse'
import { print } from '#core/expressions/print'
import type { ChoiceType, QuestionOf } from '#core/form/questions'
import { placeName, type Place } from '#core/form/walk'
import { optionsOf } from '#core/form/rows'

/** Narrows a question by earlier choices: point at one, and the column is found by what its cells hold. */
const props = defineProps<{ question: QuestionOf<ChoiceType>; place: Place }>()
const emit = defineEmits<{ change: [rule: string | null] }>()
const draft = useDraft()
const isText = ref(false)
const list = computed(() => draft.form?.lists?.find(l => l.code === props.question.list))
/** The rule part by part; null where it can't be read. */
const parts = computed((): string[] | null => {
  if (props.question.narrowedBy === undefined) return []
  try {
    const expr = parse(props.question.narrowedBy)
    return expr.kind === 'and' ? expr.parts.map(print) : [print(expr)]
  } catch (error) {
    if (error instanceof ExpressionError) return null
    throw error
  }
})
/** Earlier choice questions with the columns that fit them. */
const parents = computed(() => {
  const { form } = draft
  if (!form || !list.value) return []
  return draft.places.flatMap(p => {
    if (
      p.kind !== 'question' ||
      p.order >= props.place.order ||
      (p.node.type !== 'choice' && p.node.type !== 'choices')
    )
      return []
    if (p.entryOf && p.entryOf.order !== props.place.entryOf?.order) return []
    const codes = [...indexRows(optionsOf(form, p.node) ?? []).byCode.keys()]
    const [best] = list.value ? narrowingsBy(list.value, { code: p.code, type: p.node.type, codes }) : []
    return best
      ? [
          {
            ...best,
            code: p.code,
            words: `${p.number} ${placeName(p)}`,
            isUsed: parts.value?.includes(best.rule) ?? false,
          },
        ]
      : []
  })
})
const put = (next: readonly string[]) =>
  emit(
    'change',
    next.length === 0
      ? null
      : next.map(t => (next.length > 1 && / or | in /.test(t) ? `(${t})` : t)).join(' and '),
  )
const free = computed(() => parents.value.filter(p => !p.isUsed))
const wordsOf = (part: string) => parents.value.find(p => p.rule === part)
</script>

<template>
  <div class="narrow">
    <p
      v-for="(part, i) in parts ?? []"
      :key="part"
      class="row-flex small"
    >
      <span v-if="wordsOf(part)"
        >narrowed by <strong>{{ wordsOf(part)?.words }}</strong> through the column
        <code>{{ wordsOf(part)?.column }}</code>
        <span class="quiet"
          >({{ wordsOf(part)?.matching }} of {{ wordsOf(part)?.of }} values are its codes)</span
        ></span
      >
      <code v-else>{{ part }}</code>
      <IconButton
        :icon="mdiClose"
        name="Remove"
        @click="put((parts ?? []).toSpliced(i, 1))"
      />
    </p>
    <div class="row-flex">
      <v-select
        v-if="free.length > 0"
        :model-value="null"
        placeholder="narrow it by an earlier choice …"
        aria-label="Narrow by an earlier choice"
        :items="free.map(p => ({ value: p.rule, title: `by ${p.words} (column ${p.column})` }))"
        @update:model-value="$event && put([...(parts ?? []), $event])"
      />
      <span
        v-else-if="(parts ?? []).length === 0"
        class="small quiet"
        >No earlier choice has codes that a column of the list holds.</span
      >
      <v-btn
        variant="text"
        @click="isText = !isText"
      >
        {{ isText ? 'Hide the text' : 'As text' }}
      </v-btn>
    </div>
    <ExpressionField
      v-if="isText || parts === null"
      words="Offers rows where"
      :text="question.narrowedBy"
      :place="place"
      :wanted="null"
      :row="question.list ?? ''"
      placeholder="row.coast = coast and row.depth > draught"
      @change="emit('change', $event)"
    />
  </div>
</template>

<style scoped>
.narrow {
  display: grid;
  gap: 4px;
}
</style>
