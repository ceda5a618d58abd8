<script setup lang="ts">
import { mdiClose } from '@mdi/js'
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
  <v-table class="access small">
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
          <v-radio
            :name="`access-${turn.code}-${s.code}`"
            :value="a"
            :model-value="turn.access[s.code] ?? 'never'"
            :label="ACCESS_WORDS[a]"
            @update:model-value="put(s.code, a)"
          />
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
          <v-radio
            :name="`access-${turn.code}-${code}`"
            :value="a"
            :model-value="turn.access[code]"
            :label="ACCESS_WORDS[a]"
            @update:model-value="put(code, a)"
          />
        </td>
        <td>
          <IconButton
            :icon="mdiClose"
            name="Remove"
            @click="remove(code)"
          />
        </td>
      </tr>
    </tbody>
  </v-table>
  <v-select
    class="except"
    :model-value="null"
    placeholder="+ a question that differs from its section"
    :aria-label="`Turn ${number}: a question that differs from its section`"
    :items="
      choices
        .filter(p => !(p.code in turn.access))
        .map(q => ({ value: q.code, title: `${q.number} ${placeName(q)}` }))
    "
    @update:model-value="$event && put($event, 'never')"
  />
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
