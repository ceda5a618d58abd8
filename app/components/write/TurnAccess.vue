<script setup lang="ts">
import { Access, type Turn } from '#core/form/turns'
import { placeName } from '#core/form/walk'

/** What a turn fills, reads and never sees: section by section, and what differs from its section. */
const props = defineProps<{ turn: Turn; number: number }>()
const emit = defineEmits<{ change: [access: Turn['access']] }>()
const draft = useDraft()
const ACCESS_WORDS: Record<Access, string> = { fills: 'fills', reads: 'reads', never: 'never sees' }
const sections = computed(() => draft.form?.sections ?? [])
/** Groups and questions that differ from their section. */
const exceptions = computed(() =>
  Object.keys(props.turn.access).filter(code => !sections.value.some(s => s.code === code)),
)
const nameOf = (code: string) => draft.places.find(p => p.code === code && p.kind !== 'section')
const choices = computed(() =>
  draft.places.filter(p => (p.kind === 'question' || p.kind === 'group') && p.entryOf === null),
)
const put = (code: string, access: Access) => emit('change', { ...props.turn.access, [code]: access })
function remove(code: string) {
  const { [code]: _gone, ...rest } = props.turn.access
  emit('change', rest)
}
</script>

<template>
  <table class="access small">
    <tbody>
      <tr
        v-for="s in sections"
        :key="s.code"
      >
        <td>{{ s.title.replaceAll(/\{\{[^}]*\}\}/g, '…') || s.code }}</td>
        <td
          v-for="a in Access.options"
          :key="a"
        >
          <label
            ><input
              type="radio"
              :name="`access-${turn.code}-${s.code}`"
              :checked="(turn.access[s.code] ?? 'never') === a"
              @change="put(s.code, a)"
            />
            {{ ACCESS_WORDS[a] }}</label
          >
        </td>
      </tr>
      <tr
        v-for="code in exceptions"
        :key="code"
        class="exception"
      >
        <td>
          except <template v-if="nameOf(code)">{{ nameOf(code)?.number }} </template><code>{{ code }}</code>
        </td>
        <td
          v-for="a in Access.options"
          :key="a"
        >
          <label
            ><input
              type="radio"
              :name="`access-${turn.code}-${code}`"
              :checked="turn.access[code] === a"
              @change="put(code, a)"
            />
            {{ ACCESS_WORDS[a] }}</label
          >
        </td>
        <td>
          <button
            class="text-button"
            @click="remove(code)"
          >
            Remove
          </button>
        </td>
      </tr>
    </tbody>
  </table>
  <select
    class="field except"
    value=""
    :aria-label="`Turn ${number}: a question that differs from its section`"
    @change="put(inputText($event), 'never')"
  >
    <option value="">+ a question that differs from its section</option>
    <option
      v-for="q in choices.filter(p => !(p.code in turn.access))"
      :key="q.address"
      :value="q.code"
    >
      {{ q.number }} {{ placeName(q) }}
    </option>
  </select>
</template>

<style scoped>
.except {
  justify-self: start;
  max-width: 360px;
}
.access td {
  padding: 1px 14px 1px 0;
}
.access .exception td:first-child {
  padding-left: 14px;
}
</style>
