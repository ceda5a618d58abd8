<script setup lang="ts">
import type { ChoiceList } from '#core/form/choiceLists'
import type { Edit } from '#core/form/edits'
import { tableOf } from '#core/fill/lookedUp'
import { usersOf } from '#core/lists/levels'

/** Title and code of a list, what uses it, and the way to be rid of it. */
const props = defineProps<{ list: ChoiceList }>()
const emit = defineEmits<{ recoded: [code: string] }>()
const draft = useDraft()
const address = computed(() => `list/${props.list.code}` as const)
const users = computed(() => (draft.form ? usersOf(draft.form, props.list.code) : []))
const usage = computed(() =>
  users.value.length === 0 ? 'no question uses it yet' : `used by ${users.value.join(', ')}`,
)
const retitle = (title: string) =>
  draft.edit([{ do: 'change', what: address.value, set: { title: title || null } }], 'list-title')
/** A new code, and every question that takes its choices from the list with it. */
function recode(event: Event) {
  const code = inputText(event).trim()
  const own = props.list.code
  if (!code || code === own) return
  const edits = draft.places.flatMap((p): Edit[] => {
    if (p.kind !== 'question') return []
    const table = tableOf(p.node)
    if (table?.list === own)
      return [{ do: 'change', what: p.address, set: { table: { ...table, list: code } } }]
    const isUser = 'list' in p.node && p.node.list === own
    return isUser ? [{ do: 'change', what: p.address, set: { list: code } }] : []
  })
  if (draft.edit([...edits, { do: 'change', what: address.value, set: { code } }])) emit('recoded', code)
}
function removeList() {
  if (users.value.length === 0) draft.edit([{ do: 'remove', what: address.value }])
}
</script>

<template>
  <div class="row-flex heads">
    <v-text-field
      class="title"
      :model-value="list.title ?? list.code"
      aria-label="Title of the list"
      maxlength="200"
      @input="retitle(inputText($event))"
    />
    <v-text-field
      class="code"
      :model-value="list.code"
      aria-label="Code of the list"
      maxlength="60"
      @change="recode"
    />
    <span class="small quiet">{{ usage }}</span>
    <span class="spread" />
    <v-btn
      variant="text"
      :disabled="users.length > 0"
      :title="users.length > 0 ? 'Questions use it; let them use another first.' : ''"
      @click="removeList"
    >
      Delete the list
    </v-btn>
  </div>
</template>

<style scoped>
.heads {
  flex-wrap: wrap;
}
.title {
  width: 190px;
  font-weight: 600;
}
.code {
  width: 120px;
}
</style>
