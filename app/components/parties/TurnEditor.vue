<script setup lang="ts">
import { mdiArrowLeft, mdiArrowRight, mdiTrashCanOutline } from '@mdi/js'
import type { Question } from '#core/form/questions'
import { Code } from '#core/form/fields'
import { renameTurnEdits } from '#core/form/turnCodes'
import { DONE } from '#core/form/turns'
import { placeName } from '#core/form/walk'
import { tellAccess } from '#core/parties/accessWords'
import { peopleListOf } from '#core/parties/actors'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'
import { actorKind, addressLine, readAddresses, useTurnOrder, useTurns } from '~/composables/write/useTurns'

/** One turn: its party, its title, who acts, and who is next. */
const at = defineModel<number>('at', { required: true })
const draft = useDraft()
const writing = useTurns()
const { turns, parties, change, nameOf, actorOf } = writing
const { arrange, setAlongside, leaderFor, followerName, putHandOffs, addHandOff } = useTurnOrder(writing)
const turn = computed(() => turns.value[at.value])
/** The turn before it, with which it could be opened, or is. */
const leader = computed(() => leaderFor(at.value))
const isAlongside = computed(() => turn.value?.alongside !== undefined)
/** The names of those that are opened with it. */
const led = computed(() => turns.value.flatMap(t => (t.alongside === turn.value?.code ? [nameOf(t)] : [])))
const partyItems = computed(() => {
  const known = parties.value.map(p => ({ value: p.code, title: p.name || p.code }))
  const { party } = turn.value ?? {}
  if (party === undefined || known.some(k => k.value === party)) return known
  return [{ value: party, title: `${party} (no such party)` }, ...known]
})
const { data: directory } = useLazyAsyncData('directory', () => callApi(API.loadDirectory), {
  server: false,
})
/** The teams of the workspace, and the one that is named, though it may be gone. */
const teams = computed(() => {
  const by = turn.value?.by
  const named = typeof by === 'object' && 'people' in by ? [by.people] : []
  return [...new Set([...(directory.value?.teams ?? []).map(t => t.name), ...named])]
})
const namesSomebody = (node: Question) =>
  node.type === 'email' || (draft.form !== null && peopleListOf(draft.form, node) !== null)
const actorItems = computed(() => [
  { value: 'link', title: 'anyone with the link' },
  { value: 'team', title: 'whoever of these addresses' },
  ...teams.value.map(name => ({ value: `people:${name}`, title: `the team ${name}` })),
  ...draft.places.flatMap(p =>
    p.kind === 'question' && namesSomebody(p.node) && p.entryOf === null
      ? [{ value: `answer:${p.code}`, title: `whoever ${p.number} ${placeName(p)} names` }]
      : [],
  ),
])
const nextItems = (to: string) => {
  const known = [
    ...turns.value.flatMap(t => (t.alongside === undefined ? [{ value: t.code, title: nameOf(t) }] : [])),
    { value: DONE, title: 'done' },
  ]
  return known.some(k => k.value === to) ? known : [{ value: to, title: `${to} (no such turn)` }, ...known]
}
const wrong = ref('')
function setCode(text: string) {
  const own = turn.value
  const code = Code.safeParse(text.trim())
  if (!own || !draft.form || code.data === own.code) return
  const edits = code.success ? renameTurnEdits(draft.form, own.code, code.data) : []
  wrong.value = edits.length > 0 ? '' : `“${text}” can’t be the code of this turn.`
  if (code.error) wrong.value = code.error.issues.map(i => `${i.message}.`).join(' ')
  if (edits.length > 0) draft.edit(edits)
}
function setAddresses(text: string) {
  const actor = readAddresses(text)
  wrong.value = typeof actor === 'string' ? actor : ''
  if (typeof actor !== 'string') change(at.value, { by: actor })
}
const handOffs = computed(() => turn.value?.handOff ?? [])
/** The hand-off that was added last, by its position; it is open to be written. */
const added = ref(-1)
function append() {
  added.value = handOffs.value.length
  addHandOff(at.value)
}
watch(at, () => (added.value = -1))
const stack = useTemplateRef('stack')
/** Moves a hand-off among the others: the first whose condition is true is taken. */
function moveHandOff(from: number, to: number) {
  const moved = handOffs.value[from]
  if (!moved || to < 0 || to >= handOffs.value.length) return
  putHandOffs(at.value, handOffs.value.toSpliced(from, 1).toSpliced(to, 0, moved))
  void nextTick(() => stack.value?.querySelectorAll<HTMLElement>('.handle')[to]?.focus())
}
/** Moves the turn among the others. */
function move(by: 1 | -1) {
  const own = turn.value
  if (!own) return
  const to = at.value + by
  if (arrange(turns.value.toSpliced(at.value, 1).toSpliced(to, 0, own))) at.value = to
}
function remove() {
  if (arrange(turns.value.toSpliced(at.value, 1))) at.value = Math.max(0, at.value - 1)
}
</script>

<template>
  <div
    v-if="turn"
    class="sheet one"
    @keydown.stop
  >
    <div class="row-flex">
      <v-select
        :model-value="turn.party"
        :aria-label="`Turn ${at + 1}: party`"
        :items="partyItems"
        @update:model-value="change(at, { party: $event })"
      />
      <v-text-field
        :model-value="turn.title ?? ''"
        placeholder="title, where it differs"
        :aria-label="`Turn ${at + 1}: title`"
        maxlength="200"
        @input="change(at, { title: inputText($event) }, `turn${at}`)"
      />
      <v-text-field
        class="code"
        :model-value="turn.code"
        :aria-label="`Turn ${at + 1}: code`"
        maxlength="60"
        @change="setCode(inputText($event))"
      />
      <v-select
        :model-value="actorKind(turn.by)"
        :aria-label="`Turn ${at + 1}: who acts`"
        :items="actorItems"
        @update:model-value="change(at, { by: actorOf($event) })"
      />
      <v-text-field
        v-if="actorKind(turn.by) === 'team'"
        :model-value="addressLine(turn.by)"
        :aria-label="`Turn ${at + 1}: addresses`"
        placeholder="name@wherry.example"
        @change="setAddresses(inputText($event))"
      />
      <IconButton
        :icon="mdiArrowLeft"
        :name="`Move turn ${at + 1} up`"
        :disabled="at === 0"
        @click="move(-1)"
      />
      <IconButton
        :icon="mdiArrowRight"
        :name="`Move turn ${at + 1} down`"
        :disabled="at === turns.length - 1"
        @click="move(1)"
      />
      <IconButton
        :icon="mdiTrashCanOutline"
        :name="`Remove turn ${at + 1}`"
        @click="remove"
      />
    </div>
    <RefusalAlert :refusal="wrong" />
    <label
      v-if="leader || isAlongside"
      class="row-flex small along"
      ><v-checkbox-btn
        :model-value="isAlongside"
        density="compact"
        @update:model-value="setAlongside(at, $event)"
      />
      open at once with {{ leader ? nameOf(leader) : turn.alongside }}</label
    >
    <TurnTiming
      :turn="turn"
      :name="`Turn ${at + 1}`"
      :is-first="at === 0"
      @change="change(at, $event)"
    />
    <p class="small quiet">{{ tellAccess(draft.places, turn) }}</p>
    <div
      v-if="handOffs.length > 0"
      ref="stack"
      class="hands"
    >
      <HandOffEditor
        v-for="(h, i) in handOffs"
        :key="`${at}/${i}`"
        :hand-off="h"
        :name="`Turn ${at + 1}: hand-off ${i + 1}`"
        :number="i + 1"
        :targets="nextItems(h.to)"
        :is-new="i === added"
        @change="putHandOffs(at, handOffs.with(i, $event))"
        @remove="putHandOffs(at, handOffs.toSpliced(i, 1))"
        @move="moveHandOff"
      />
    </div>
    <div class="row-flex small">
      <span
        v-if="isAlongside && leader"
        class="quiet"
        >The response goes on as {{ nameOf(leader) }} says, once all that are open at once are handed
        on.</span
      >
      <span
        v-else-if="handOffs.length === 0"
        class="quiet"
        >From {{ [nameOf(turn), ...led].join(' and ') }} on to {{ followerName(at) }}</span
      >
      <v-btn
        v-if="!isAlongside"
        variant="text"
        @click="append"
      >
        + hand-off
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.one {
  display: grid;
  gap: 8px;
  padding: 10px 14px;
}
.along {
  justify-self: start;
}
.code {
  flex: 0 1 130px;
  font-family: var(--code-font);
}
.hands {
  display: grid;
  gap: 6px;
}
</style>
