<script setup lang="ts">
import type { ChoiceList } from '#core/form/choiceLists'
import { codeFromLabel, freeCode } from '#core/form/codes'

/** The lists of the form by name, and a line to begin another. */
const chosen = defineModel<string | null>('chosen', { required: true })
const props = defineProps<{ all: readonly ChoiceList[]; list: ChoiceList | null }>()
const draft = useDraft()
const lists = useLists()
const name = ref('')
function addList() {
  const title = name.value.trim()
  if (!title) return
  const code = freeCode(codeFromLabel(title, 'list'), new Set(props.all.map(l => l.code)))
  const node = { code, title, rows: [] }
  if (!draft.edit([{ do: 'insert', into: 'lists', at: props.all.length, node }])) return
  chosen.value = code
  name.value = ''
}
</script>

<template>
  <aside
    class="side"
    aria-label="Choice lists"
  >
    <v-btn
      v-for="l in all"
      :key="l.code"
      variant="plain"
      class="pick"
      :aria-pressed="list === l"
      @click="chosen = l.code"
    >
      <span
        >{{ l.title || l.code
        }}<span
          v-if="lists.of(l.code).length > 0"
          class="risk"
          :title="`${lists.of(l.code).length} things are wrong`"
        >
          ▲</span
        ><v-chip v-if="l.shared"> shared</v-chip><v-chip v-if="l.people"> people</v-chip></span
      ><b class="num">{{ l.rows.length }}</b>
    </v-btn>
    <form
      class="row-flex"
      @submit.prevent="addList"
    >
      <v-text-field
        v-model="name"
        placeholder="Harbours"
        aria-label="Name of a new list"
        maxlength="80"
      /><v-btn
        type="submit"
        variant="text"
        :disabled="!name.trim()"
      >
        + list
      </v-btn>
    </form>
    <Suspense v-if="draft.may('design')"
      ><TeamListPicker
        :all="all"
        @added="chosen = $event"
    /></Suspense>
    <Suspense v-if="draft.may('design')"
      ><SharedLists
        :list="list?.people === undefined ? list : null"
        @taken="chosen = $event"
    /></Suspense>
  </aside>
</template>

<style scoped>
.side {
  border-right: 1px solid var(--line);
  padding: 10px;
  overflow-y: auto;
  display: grid;
  gap: 6px;
  align-content: start;
}
</style>
