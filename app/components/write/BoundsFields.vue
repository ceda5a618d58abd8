<script setup lang="ts">
import type { Question } from '#core/form/questions'
import type { PlaceOf } from '#core/form/walk'

/** Limits that are worked out, from the day or from earlier answers. */
const props = defineProps<{ place: PlaceOf<'question'> }>()
const emit = defineEmits<{ set: [values: Record<string, unknown>, merge: string] }>()
const draft = useDraft()
const wanted = computed(() => draft.names?.typeOf(props.place.code) ?? null)
const EXAMPLES: Partial<Record<Question['type'], { words: [string, string]; examples: [string, string] }>> = {
  integer: { words: ['Not below', 'Not above'], examples: ['such as 2', 'such as guests'] },
  decimal: { words: ['Not below', 'Not above'], examples: ['such as 2', 'such as loa / 2'] },
  money: { words: ['Not below', 'Not above'], examples: ['such as deposit', 'such as total'] },
  date: {
    words: ['Not before', 'Not after'],
    examples: ['such as today() + duration("P3D")', 'such as haul_out_on'],
  },
  time: { words: ['Not before', 'Not after'], examples: ['such as begins_at', 'such as ends_at'] },
  dateTime: { words: ['Not before', 'Not after'], examples: ['such as began_at', 'such as ended_at'] },
}
/** Of an amount in one of several currencies a check can name the amount in each. */
const isOfMany = computed(() => 'currencies' in props.place.node && props.place.node.currencies !== undefined)
const about = computed(() => (isOfMany.value ? undefined : EXAMPLES[props.place.node.type]))
const fields = computed(() =>
  (['atLeast', 'atMost'] as const).map((key, i) => {
    const limit: unknown = Reflect.get(props.place.node, key)
    return {
      key,
      text: typeof limit === 'string' ? limit : undefined,
      words: about.value?.words[i] ?? '',
      example: about.value?.examples[i] ?? '',
    }
  }),
)
</script>

<template>
  <template v-if="about">
    <template
      v-for="f in fields"
      :key="f.key"
    >
      <span class="left">{{ f.words }}</span>
      <ExpressionField
        :words="f.words"
        :text="f.text"
        :place="place"
        :wanted="wanted"
        :placeholder="f.example"
        @change="emit('set', { [f.key]: $event }, f.key)"
      />
    </template>
  </template>
</template>
