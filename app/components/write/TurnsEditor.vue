<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { codeFromLabel, freeCode } from '#core/form/codes'
import { DONE, type Actor, type Turn } from '#core/form/turns'
import { turnName } from '#core/parties/turns'
import { placeName } from '#core/form/walk'

/** The turns in order: who acts, what each fills, reads and never sees, and who is next. */
const draft = useDraft()
const { user } = useUserSession()
/** Until somebody else is named, a turn waits for whoever sets it up. */
const me = (): Actor => ({ team: [user.value?.email ?? 'nobody@wherry.example'] })
const form = computed(() => draft.form)
const turns = computed(() => form.value?.turns ?? [])
const turnItems = computed(() => [
  ...turns.value.map(t => ({ value: t.code, title: form.value ? turnName(form.value, t) : t.code })),
  { value: DONE, title: 'done' },
])
const parties = computed(() => form.value?.parties ?? [])
const sections = computed(() => form.value?.sections ?? [])
const last = computed(() => draft.places.findLast(p => p.kind === 'section'))
const emails = computed(() =>
  draft.places.flatMap(p =>
    p.kind === 'question' && p.node.type === 'email' && p.entryOf === null ? [p] : [],
  ),
)
const put = (next: readonly Turn[], merge: string | null = null) =>
  draft.edit([{ do: 'change', what: 'form', set: { turns: next.length > 0 ? next : null } }], merge)
const change = (i: number, part: Partial<Turn>, merge: string | null = null) =>
  put(
    turns.value.map((t, j) => (j === i ? { ...t, ...part } : t)),
    merge,
  )

function add() {
  const free = parties.value.find(p => !turns.value.some(t => t.party === p.code)) ?? parties.value[0]
  if (!free) return
  const first = turns.value.length === 0
  put([
    ...turns.value,
    {
      code: freeCode(codeFromLabel(free.name), new Set(turns.value.map(t => t.code))),
      party: free.code,
      by: first ? 'link' : me(),
      access: Object.fromEntries(sections.value.map(s => [s.code, first ? 'fills' : 'reads'])),
    },
  ])
}
/** Whom a turn waits for, as one line of text: a link, addresses, or an answer. */
function kindOf(by: Actor): string {
  if (by === 'link') return 'link'
  return 'answer' in by ? `answer:${by.answer}` : 'team'
}
function addressesOf(by: Actor): string {
  if (by === 'link' || 'answer' in by) return ''
  return 'person' in by ? by.person : by.team.join(', ')
}
function actorOf(kind: string): Actor {
  if (kind === 'link') return 'link'
  return kind.startsWith('answer:') ? { answer: kind.slice('answer:'.length) } : me()
}
const setKind = (i: number, kind: string) => change(i, { by: actorOf(kind) })
const wrongAddresses = ref<Record<number, string>>({})
function addressFault(list: readonly string[]): string {
  if (list.length === 0) return 'Somebody has to act: write an address.'
  const bad = list.find(a => !ADDRESS.test(a))
  return bad ? `“${bad}” is no e-mail address.` : ''
}
const ADDRESS = /^[^@\s]+@[^@\s]+\.[^@\s]+$/
function setAddresses(i: number, text: string) {
  const list = text.split(/[\s,;]+/).filter(Boolean)
  const fault = addressFault(list)
  wrongAddresses.value = { ...wrongAddresses.value, [i]: fault }
  const [first] = list
  if (!fault && first) change(i, { by: list.length === 1 ? { person: first } : { team: list } })
}
/** Who comes after a turn that has no rules of its own. */
function followerOf(i: number): string {
  const next = turns.value[i + 1]
  return next && form.value ? turnName(form.value, next) : 'done'
}
const putHandOffs = (i: number, next: NonNullable<Turn['handOff']>) =>
  put(
    turns.value.map((t, j): Turn => {
      if (j !== i) return t
      const { handOff: _, ...rest } = t
      return next.length > 0 ? { ...rest, handOff: next } : rest
    }),
  )
const changeHandOff = (i: number, at: number, part: NonNullable<Turn['handOff']>[number]) =>
  putHandOffs(i, (turns.value[i]?.handOff ?? []).with(at, part))
</script>

<template>
  <div
    v-if="form"
    class="stack"
  >
    <div
      v-for="(t, i) in turns"
      :key="t.code"
      class="turn"
    >
      <div class="row-flex">
        <span class="number">{{ i + 1 }}</span>
        <v-select
          :model-value="t.party"
          :aria-label="`Turn ${i + 1}: party`"
          :items="[
            ...(!parties.some(p => p.code === t.party)
              ? [{ value: t.party, title: `${t.party} (no such party)` }]
              : []),
            ...parties.map(p => ({ value: p.code, title: p.name || p.code })),
          ]"
          @update:model-value="change(i, { party: $event })"
        />
        <v-text-field
          :model-value="t.title ?? ''"
          placeholder="title, where it differs"
          :aria-label="`Turn ${i + 1}: title`"
          maxlength="200"
          @input="change(i, { title: inputText($event) }, `turn${i}`)"
        />
        <span class="spread" />
        <v-btn
          variant="text"
          :disabled="i === 0"
          :aria-label="`Move turn ${i + 1} up`"
          @click="put(turns.toSpliced(i, 1).toSpliced(i - 1, 0, t))"
        >
          ↑
        </v-btn>
        <IconButton
          :icon="mdiClose"
          name="Remove"
          @click="put(turns.toSpliced(i, 1))"
        />
      </div>
      <div class="row-flex">
        <span class="small quiet">acts</span>
        <v-select
          :model-value="kindOf(t.by)"
          :aria-label="`Turn ${i + 1}: who acts`"
          :items="[
            { value: 'link', title: 'anyone with the link' },
            { value: 'team', title: 'whoever of these addresses' },
            ...emails.map(q => ({
              value: `answer:${q.code}`,
              title: `whoever ${q.number} ${placeName(q)} names`,
            })),
          ]"
          @update:model-value="setKind(i, $event)"
        />
        <v-text-field
          v-if="kindOf(t.by) === 'team'"
          class="wide"
          :model-value="addressesOf(t.by)"
          :aria-label="`Turn ${i + 1}: addresses`"
          placeholder="name@wherry.example"
          @change="setAddresses(i, inputText($event))"
        />
        <span
          v-if="wrongAddresses[i]"
          class="small fault"
          role="alert"
          >{{ wrongAddresses[i] }}</span
        >
      </div>
      <TurnAccess
        :turn="t"
        :number="i + 1"
        @change="change(i, { access: $event })"
      />
      <div
        v-for="(h, at) in t.handOff ?? []"
        :key="at"
        class="hand"
      >
        <div class="row-flex">
          <span class="small quiet">{{ at + 1 }}. then</span>
          <v-select
            :model-value="h.to"
            :aria-label="`Turn ${i + 1}: hand-off ${at + 1}`"
            :items="[
              ...(h.to !== DONE && !turns.some(o => o.code === h.to)
                ? [{ value: h.to, title: `${h.to} (no such turn)` }]
                : []),
              ...turnItems,
            ]"
            @update:model-value="changeHandOff(i, at, { ...h, to: $event })"
          />
          <IconButton
            :icon="mdiClose"
            name="Remove"
            @click="putHandOffs(i, (t.handOff ?? []).toSpliced(at, 1))"
          />
        </div>
        <RuleField
          v-if="last"
          words="Handed off when"
          :text="h.when"
          :place="last"
          @change="changeHandOff(i, at, $event === null ? { to: h.to } : { when: $event, to: h.to })"
          ><template #none><span class="small quiet">always</span></template></RuleField
        >
      </div>
      <div class="row-flex small">
        <span
          v-if="!t.handOff?.length"
          class="quiet"
          >then {{ followerOf(i) }}</span
        ><v-btn
          variant="text"
          @click="putHandOffs(i, [...(t.handOff ?? []), { to: turns[i + 1]?.code ?? DONE }])"
        >
          + hand-off
        </v-btn>
      </div>
    </div>
    <div>
      <v-btn
        variant="text"
        @click="add"
      >
        + turn
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.stack,
.turn,
.hand {
  display: grid;
  gap: 6px;
}
.turn {
  border-left: 1px solid var(--line);
  padding-left: 10px;
  margin-bottom: 8px;
}
.hand {
  border-left: 1px solid var(--line);
  padding-left: 10px;
}
.number {
  width: 20px;
  color: var(--slate);
}
.wide {
  flex: 1;
}
</style>
