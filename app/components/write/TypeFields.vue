<script setup lang="ts">
import type { Question } from '#core/form/questions'
import { TYPE_FIELDS, type TypeField } from './typeFields'

/** The fields that a question has by its type. */
const props = defineProps<{ question: Question }>()
const emit = defineEmits<{ set: [values: Record<string, unknown>, merge?: string] }>()
const fields = computed(() => TYPE_FIELDS[props.question.type])
const valueOf = (key: string): unknown => Reflect.get(props.question, key)
const numberFor = (key: string) => {
  const value = valueOf(key)
  return typeof value === 'number' ? value : null
}
const textFor = (f: TypeField) => {
  const value = valueOf(f.key)
  // The one that is chosen at first has a field of its own.
  if (f.key === 'currencies')
    return many(f.key)
      .filter(c => c !== valueOf('currency'))
      .join(', ')
  return typeof value === 'string' || typeof value === 'number' ? String(value) : ''
}
/** The currencies of an amount, the one that is chosen at first and others. */
function setCurrencies(first: string, others: readonly string[]) {
  const codes = [...new Set([first, ...others])].filter(Boolean)
  emit('set', { currency: first, currencies: codes.length > 1 ? codes : null })
}
function put(f: TypeField, text: string) {
  const first = valueOf('currency')
  if (f.key === 'currencies' && typeof first === 'string')
    return setCurrencies(first, text.toUpperCase().split(/[\s,;]+/))
  if (f.key === 'currency' && many('currencies').length > 0)
    return setCurrencies(
      text.toUpperCase(),
      many('currencies').filter(c => c !== first),
    )
  const written = f.key === 'currency' ? text.toUpperCase() : text
  emit('set', { [f.key]: written === '' ? null : written })
}
const many = (key: string) => {
  const value = valueOf(key)
  return Array.isArray(value) ? value.map(String) : []
}
function toggle(f: TypeField, value: string) {
  const chosen = (f.choices ?? []).map(c => c.value).filter(v => (v === value) !== many(f.key).includes(v))
  emit('set', { [f.key]: chosen.length === 0 || chosen.length === f.choices?.length ? null : chosen })
}
</script>

<template>
  <div class="row-flex fields">
    <template
      v-for="f in fields"
      :key="f.key"
    >
      <label
        v-if="f.as === 'tick'"
        class="small"
        ><v-checkbox-btn
          :model-value="valueOf(f.key) !== undefined"
          @change="emit('set', { [f.key]: valueOf(f.key) === undefined ? true : null })"
        />
        {{ f.words }}</label
      >
      <span
        v-else-if="f.as === 'many'"
        class="row-flex small"
        ><span class="quiet">{{ f.words }}</span
        ><v-btn
          v-for="c in f.choices"
          :key="c.value"
          variant="plain"
          class="chip"
          :aria-pressed="many(f.key).length === 0 || many(f.key).includes(c.value)"
          @click="toggle(f, c.value)"
        >
          {{ c.words }}
        </v-btn></span
      >
      <label
        v-else
        class="small quiet"
        >{{ f.words }}
        <v-select
          v-if="f.as === 'choice'"
          :model-value="textFor(f)"
          :items="[
            { value: '', title: 'as fits' },
            ...(f.choices ?? []).map(c => ({ value: c.value, title: c.words })),
          ]"
          @update:model-value="put(f, $event)"
        />
        <DayField
          v-else-if="f.as === 'date' || f.as === 'dateTime'"
          :model-value="textFor(f)"
          :name="f.words"
          :with-time="f.as === 'dateTime'"
          @update:model-value="put(f, $event)"
        />
        <NumberField
          v-else-if="f.as === 'number'"
          :model-value="numberFor(f.key)"
          @update:model-value="emit('set', { [f.key]: $event }, f.key)"
        />
        <v-text-field
          v-else
          :class="f.as"
          :type="f.as"
          :model-value="textFor(f)"
          @change="put(f, inputText($event).trim())"
        />
      </label>
    </template>
  </div>
</template>

<style scoped>
.fields {
  gap: 6px 12px;
}
.text {
  width: 110px;
}
.chip {
  border: 1px solid var(--line);
  background: var(--paper);
  border-radius: 2px;
  padding: 2px 8px;
  font-size: 13px;
  cursor: pointer;
}
.chip[aria-pressed='true'] {
  background: var(--verdigris-wash);
  color: var(--verdigris);
  font-weight: 600;
}
</style>
