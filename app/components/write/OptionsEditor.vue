<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import type { Option, Question } from '#core/form/questions'
import { codeFromLabel, freeCode } from '#core/form/codes'
import { renameChoiceEdits } from '#core/lists/renameChoice'
import type { Edit } from '#core/form/edits'
import type { Address, Place } from '#core/form/walk'

/** Options of a choice, ranking or grid, or the rows of a grid: typed or pasted line by line; more about each where it is asked for. */
const props = defineProps<{
  question: Extract<Question, { options?: unknown }>
  field: 'options' | 'rows'
  address: Address
  place: Place
}>()
const draft = useDraft()
const { say, sayDone } = useSaid()
const line = ref('')
const more = ref<number | null>(null)
const isGridRows = computed(() => props.field === 'rows')
const options = computed(
  (): readonly Option[] =>
    (isGridRows.value && props.question.type === 'grid' ? props.question.rows : props.question.options) ?? [],
)
const isChoice = computed(
  () => (props.question.type === 'choice' || props.question.type === 'choices') && !isGridRows.value,
)
const hasPoints = computed(() => (isChoice.value || props.question.type === 'grid') && !isGridRows.value)
const noun = computed(() => (isGridRows.value ? 'row' : 'choice'))
const list = computed(() => ('list' in props.question ? props.question.list : undefined))

const put = (next: readonly Option[], merge: string | null = null) =>
  draft.edit([{ do: 'change', what: props.address, set: { [props.field]: next } }], merge)
/** Lines become options; a line `code | Label` brings its own code. */
function add(lines: readonly string[]) {
  const next = [...options.value]
  for (const text of lines.map(l => l.replace(/^[\s•*–-]+|\s+$/g, '')).filter(Boolean)) {
    const [own, label] = text.includes('|') ? text.split('|', 2).map(t => t.trim()) : [null, text]
    next.push({
      code: freeCode(own || codeFromLabel(label ?? text, noun.value), new Set(next.map(o => o.code))),
      label: label ?? text,
    })
  }
  if (next.length > options.value.length) put(next)
}
function commit() {
  add([line.value])
  line.value = ''
}
function paste(event: ClipboardEvent) {
  const text = event.clipboardData?.getData('text/plain') ?? ''
  if (!/\r?\n/.test(text.trim())) return
  event.preventDefault()
  add(text.split(/\r?\n/))
}
/** An undefined part goes out of the option. */
const change = (i: number, part: Partial<Option>) =>
  put(
    options.value.map((o, j) =>
      j === i
        ? (Object.fromEntries(Object.entries({ ...o, ...part }).filter(([, v]) => v !== undefined)) as Option)
        : o,
    ),
    `${props.address}:${props.field}:${i}:${Object.keys(part)[0]}`,
  )
const at = computed(() => ({ question: props.address, field: props.field }))
/** Another code is said wherever the old one was, in the same step. */
function recode(i: number, field: Event) {
  const [from, to] = [options.value[i]?.code, inputText(field).trim()]
  if (!draft.form || from === undefined || to === '' || to === from) return
  if (options.value.some(o => o.code === to)) {
    say(`Another ${noun.value} has the code “${to}”.`)
    return
  }
  const elsewhere = renameChoiceEdits(draft.form, at.value, from, to)
  const next = options.value.map((o, j) => (j === i ? { ...o, code: to } : o))
  const own: Edit = { do: 'change', what: props.address, set: { [props.field]: next } }
  if (draft.edit([...elsewhere, own]) && elsewhere.length > 0)
    sayDone(`“${from}” is “${to}” now, in ${counted(elsewhere.length, 'other place', 'other places')} too.`)
}
function remove(i: number) {
  const gone = options.value[i]
  if (!gone || !draft.form) return
  const used = sayChoiceUses(draft.form, at.value, [gone.code])
  put(options.value.toSpliced(i, 1))
  if (used) sayDone(`“${gone.label}” is gone. ${used}`)
}
function move(i: number, by: number) {
  const to = i + by
  const moved = options.value[i]
  if (moved && to >= 0 && to < options.value.length)
    put(options.value.toSpliced(i, 1).toSpliced(to, 0, moved))
}
const numberOf = (event: Event) => {
  const text = inputText(event).trim().replace(',', '.')
  const value = Number(text)
  return text === '' || !Number.isFinite(value) ? undefined : value
}
const placesOf = (event: Event) => {
  const value = numberOf(event)
  return value === undefined || value < 1 ? undefined : Math.round(value)
}
const marks = (o: Option) =>
  [
    o.points === undefined ? '' : `${o.points} points`,
    o.price === undefined ? '' : `price ${o.price}`,
    o.places === undefined ? '' : counted(o.places, 'place'),
    o.shownWhen === undefined ? '' : 'rule',
    o.alone ? 'alone' : '',
    o.picture ? 'picture' : '',
  ]
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <div class="options">
    <p
      v-if="list"
      class="small quiet"
    >
      The choices come from the list <code>{{ list }}</code>.
    </p>
    <template v-else>
      <template
        v-for="(o, i) in options"
        :key="i"
      >
        <div class="option">
          <v-text-field
            :model-value="o.label"
            :aria-label="`${noun === 'row' ? 'Row' : 'Choice'} ${i + 1}: label`"
            @input="change(i, { label: inputText($event) })"
            @keydown.alt.up.prevent="move(i, -1)"
            @keydown.alt.down.prevent="move(i, 1)"
          />
          <v-text-field
            class="code"
            :model-value="o.code"
            :aria-label="`${noun === 'row' ? 'Row' : 'Choice'} ${i + 1}: code`"
            maxlength="60"
            @change="recode(i, $event)"
          />
          <v-btn
            v-if="hasPoints"
            variant="text"
            :aria-expanded="more === i"
            :aria-label="`More about ${o.label}`"
            @click="more = more === i ? null : i"
          >
            {{ marks(o) || 'more' }}
          </v-btn>
          <IconButton
            :icon="mdiClose"
            :name="`Remove the ${noun} ${o.label}`"
            @click="remove(i)"
          />
        </div>
        <div
          v-if="more === i && hasPoints"
          class="about"
        >
          <div class="row-flex small quiet">
            <label
              >points
              <v-text-field
                class="number"
                :model-value="o.points ?? ''"
                inputmode="decimal"
                @change="change(i, { points: numberOf($event) })"
            /></label>
            <label v-if="isChoice"
              >price
              <v-text-field
                class="number"
                :model-value="o.price ?? ''"
                inputmode="decimal"
                @change="change(i, { price: numberOf($event) })"
            /></label>
            <label v-if="isChoice"
              >places
              <v-text-field
                class="number"
                :model-value="o.places ?? ''"
                inputmode="numeric"
                placeholder="any"
                @change="change(i, { places: placesOf($event) })"
            /></label>
            <label v-if="question.type === 'choices'"
              ><v-checkbox-btn
                :model-value="o.alone"
                @change="change(i, { alone: o.alone ? undefined : true })"
              />
              excludes the others</label
            >
          </div>
          <PictureField
            v-if="isChoice"
            :name="o.label"
            :picture="o.picture ? { data: o.picture } : undefined"
            :room="{ width: 320, height: 240 }"
            is-said
            @change="change(i, { picture: $event?.data })"
          />
          <RuleField
            v-if="isChoice"
            words="Offered when"
            :text="o.shownWhen"
            :place="place"
            :except="place"
            :part="o.code"
            @change="change(i, { shownWhen: $event ?? undefined })"
          />
        </div>
      </template>
      <v-text-field
        v-model="line"
        :placeholder="`Type a ${noun}, Enter for the next; or paste lines`"
        :aria-label="`New ${noun}`"
        @keydown.enter.prevent="commit"
        @paste="paste"
        @blur="line.trim() && commit()"
      />
    </template>
  </div>
</template>

<style scoped>
.options {
  display: grid;
  gap: 4px;
}
.option {
  display: grid;
  grid-template-columns: 1fr 130px auto auto;
  gap: 6px;
}
.about {
  border-left: 1px solid var(--line);
  padding-left: 10px;
  display: grid;
  gap: 4px;
}
.number {
  width: 64px;
}
</style>
