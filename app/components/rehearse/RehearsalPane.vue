<script setup lang="ts">
import { readableDate } from '#core/expressions/dates'
import { findClosingMessage } from '#core/fill/closing'
import type { Frame } from '#core/fill/fill'
import { pagesOf, type Page } from '#core/fill/pages'
import { redactForParty } from '#core/parties/redact'
import { turnName } from '#core/parties/turns'
import { fill } from '#core/fill/fill'
import { planOf } from '#core/fill/plan'
import { placeName, type Address } from '#core/form/walk'
import { dayHere } from '../../stores/rehearsal'
import { FILE_TAKER, type FileTaker } from '../answer/widgets/widget'

/** The live form beside the design. */
const props = defineProps<{ large?: boolean; begin?: string }>()
const draft = useDraft()
const rehearsal = useRehearsal()
const WIDTHS = ['phone', 'tablet', 'desk'] as const
const width = ref<(typeof WIDTHS)[number]>(props.large ? 'desk' : 'tablet')
const sheet = useTemplateRef('sheet')
const turns = computed(() => draft.form?.turns ?? [])
/** The turn as whose party this pane rehearses; null for all of the form. */
const as = ref<string | null>(props.begin ?? null)
const turn = computed(() => turns.value.find(t => t.code === as.value) ?? null)
const seen = computed(() =>
  rehearsal.filled && turn.value ? redactForParty(rehearsal.filled, turn.value, rehearsal.answers) : null,
)
const filled = computed(() =>
  seen.value ? fill(planOf(seen.value.form), seen.value.answers, rehearsal.today) : rehearsal.filled,
)
const shownAnswers = computed(() => seen.value?.answers ?? rehearsal.answers)
provide(
  'access',
  computed(() => seen.value?.access ?? {}),
)
/** A party’s sections are counted by themselves, so it keeps a place of its own. */
const partyPlace = ref<Page>({ section: 0, only: null })
const where = computed({
  get: () => (turn.value ? partyPlace.value : rehearsal.place),
  set: page => {
    if (turn.value) partyPlace.value = page
    else rehearsal.place = page
  },
})
const way = useWay(filled, where)
const { at, page } = way
const finished = ref(false)
const said = ref('')
const closing = computed(() => (filled.value ? findClosingMessage(filled.value) : null))
// Nothing is sent while rehearsing: a file is only named.
provide<FileTaker>(FILE_TAKER, {
  take: (_, file) => Promise.resolve({ file: `rehearsal-${Date.now()}`, name: file.name, bytes: file.size }),
})
const asked = shallowRef<{ address: Address; frame: Frame | null } | null>(null)
/** The entry asked about, or the response as it is now: the panel follows the answers. */
provide('why', (address: Address, frame: Frame) => {
  as.value = turn.value ? null : as.value
  asked.value = { address, frame: frame === filled.value || seen.value ? null : frame }
})

function goOn() {
  if (way.goOn() === 'end') finished.value = true
  sheet.value?.scrollTo({ top: 0 })
}
function goBack() {
  if (finished.value) finished.value = false
  else way.goBack()
}
function afresh() {
  rehearsal.startAfresh()
  finished.value = false
  way.tried.value = false
  asked.value = null
  said.value = 'Started afresh.'
}
function fillRest() {
  said.value = rehearsal.fillRest()
    ? 'The rest is filled with likely answers.'
    : 'No complete set of answers was found; look at what is required.'
}
/** Any section can be gone to; one that the answers do not lead to is told, with its reason. */
const sections = computed(() =>
  (draft.form?.sections ?? []).map((s, i) => ({
    i,
    title: s.title,
    reached: filled.value?.path.includes(i) ?? false,
  })),
)
function jump(event: Event) {
  const i = Number(event.target instanceof HTMLSelectElement ? event.target.value : -1)
  const section = draft.places.find(p => p.kind === 'section' && p.section === i)
  finished.value = false
  if (filled.value?.path.includes(i))
    rehearsal.place = pagesOf(filled.value).find(p => p.section === i) ?? rehearsal.place
  else if (section) asked.value = { address: section.address, frame: null }
}
/** What stands in the section and does not show now. */
const hidden = computed(() =>
  filled.value && page.value && !turn.value
    ? draft.places.filter(
        p =>
          p.section === page.value?.section &&
          p.kind !== 'section' &&
          p.entryOf === null &&
          !filled.value?.inPlay[p.order] &&
          !p.groups.some(g => !filled.value?.inPlay[g.order]),
      )
    : [],
)
const name = ref('')
function saveSet() {
  if (!name.value.trim()) return
  rehearsal.saveSet(name.value.trim())
  said.value = `Kept as “${name.value.trim()}”.`
  name.value = ''
}
function keys(event: KeyboardEvent) {
  if (!event.altKey || event.ctrlKey || event.key.toLowerCase() !== 'n') return
  event.preventDefault()
  afresh()
}
onMounted(() => window.addEventListener('keydown', keys))
onBeforeUnmount(() => window.removeEventListener('keydown', keys))
watch([() => rehearsal.place, () => draft.id], () => {
  finished.value = false
})
watch(
  () => rehearsal.lit,
  lit => {
    if (lit) void nextTick(() => sheet.value?.querySelector('.lit')?.scrollIntoView({ block: 'center' }))
  },
)
const litName = computed(() => {
  const place = draft.places.find(p => p.address === rehearsal.lit)
  if (!place || !rehearsal.filled) return null
  return {
    name: place.kind === 'note' ? 'this note' : `“${placeName(place)}”`,
    shown: rehearsal.filled.inPlay[place.order] === true,
    address: place.address,
  }
})
</script>

<template>
  <section
    class="rehearsal"
    aria-label="Rehearsal"
  >
    <div class="pane-bar">
      <strong>Rehearsal</strong>
      <select
        v-if="turns.length > 0"
        v-model="as"
        class="field go as"
        aria-label="Rehearse as"
      >
        <option :value="null">All of the form</option>
        <option
          v-for="t in turns"
          :key="t.code"
          :value="t.code"
        >
          as {{ draft.form ? turnName(draft.form, t) : t.code }}
        </option>
      </select>
      <select
        v-if="!turn"
        class="field go"
        aria-label="Go to section"
        :value="page?.section ?? ''"
        @change="jump"
      >
        <option
          v-for="s in sections"
          :key="s.i"
          :value="s.i"
        >
          {{ s.i + 1 }} {{ s.title }}{{ s.reached ? '' : ' (not reached)' }}
        </option>
      </select>
      <span class="spread" />
      <span
        class="widths"
        role="radiogroup"
        aria-label="Width"
      >
        <button
          v-for="w in WIDTHS"
          :key="w"
          role="radio"
          :aria-checked="width === w"
          @click="width = w"
        >
          {{ w }}
        </button>
      </span>
      <details class="more">
        <summary class="text-button">Answers</summary>
        <div class="menu sheet">
          <button
            class="text-button"
            @click="fillRest"
          >
            Fill the rest
          </button>
          <form
            class="row-flex"
            @submit.prevent="saveSet"
          >
            <input
              v-model="name"
              class="field"
              placeholder="Name of this set"
              aria-label="Name of this set of answers"
              maxlength="80"
            /><button
              class="text-button"
              :disabled="!name.trim()"
            >
              Keep
            </button>
          </form>
          <p
            v-if="rehearsal.sets.length === 0"
            class="small quiet"
          >
            No sets kept yet.
          </p>
          <div
            v-for="s in rehearsal.sets"
            :key="s.name"
            class="row-flex"
          >
            <button
              class="text-button"
              @click="rehearsal.openSet(s.name)"
            >
              {{ s.name }}</button><span class="spread" /><button
              class="text-button"
              :aria-label="`Remove the set ${s.name}`"
              @click="rehearsal.removeSet(s.name)"
            >
              ×
            </button>
          </div>
        </div>
      </details>
      <button
        class="text-button"
        aria-keyshortcuts="Alt+N"
        @click="afresh"
      >
        Start afresh
      </button>
    </div>
    <span
      class="hidden-words"
      role="status"
      >{{ said }}</span
    >
    <div
      ref="sheet"
      class="scroll"
    >
      <p
        v-if="litName && !turn"
        class="lit-line small"
      >
        These answers lead to {{ litName.name
        }}{{ litName.shown ? ', marked below.' : ', which does not show.'
        }}<template v-if="rehearsal.today !== dayHere()">
          Today is {{ readableDate(rehearsal.today) }} here.</template
        >
        <button
          v-if="!litName.shown"
          class="text-button"
          @click="asked = { address: litName.address, frame: null }"
        >
          Why not?
        </button>
        <button
          class="text-button"
          @click="rehearsal.unlight()"
        >
          Done
        </button>
      </p>
      <WhyPanel
        v-if="asked && filled && !turn"
        :address="asked.address"
        :filled="filled"
        :frame="asked.frame ?? filled"
        @close="asked = null"
      />
      <div
        v-if="filled && page"
        class="sheet page"
        :class="width"
      >
        <template v-if="finished && closing">
          <h2>All answered</h2>
          <p class="quiet">A respondent would now check the answers and send them. Then the page says:</p>
          <div class="said">
            <strong>{{ closing.title }}</strong>
            <p>{{ closing.text }}</p>
            <p
              v-if="closing.forward"
              class="small quiet"
            >
              and goes on to <code>{{ closing.forward }}</code>
            </p>
          </div>
          <div class="row-flex foot">
            <button
              class="plain-button"
              @click="goBack"
            >
              Back
            </button>
          </div>
        </template>
        <template v-else>
          <p class="quiet small part">{{ way.progress.value }}</p>
          <AnswerSection
            :filled="filled"
            :page="page"
            :answers="shownAnswers"
            :tried="way.tried.value"
            :lit="rehearsal.lit"
            prefix="try"
            @answer="(code, value) => rehearsal.answer(code, value)"
          />
          <div class="row-flex foot">
            <button
              class="plain-button"
              :disabled="at === 0"
              @click="goBack"
            >
              Back
            </button>
            <span class="spread" />
            <button
              class="action"
              @click="goOn"
            >
              {{ way.nextWords.value }}
            </button>
          </div>
        </template>
      </div>
      <p
        v-else
        class="quiet empty"
      >
        The form has no section that can be shown yet.
      </p>
      <details
        v-if="hidden.length > 0"
        class="not-shown small"
      >
        <summary>
          {{ hidden.length === 1 ? 'One thing' : `${hidden.length} things` }} of this section
          {{ hidden.length === 1 ? 'does' : 'do' }} not show
        </summary>
        <ul>
          <li
            v-for="p in hidden"
            :key="p.address"
          >
            <button
              class="text-button"
              @click="asked = { address: p.address, frame: null }"
            >
              Why not {{ p.number }} {{ placeName(p) }}?
            </button>
          </li>
        </ul>
      </details>
    </div>
  </section>
</template>

<style scoped>
.rehearsal {
  display: flex;
  flex-direction: column;
  min-height: 0;
  height: 100%;
}
.pane-bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  min-height: 40px;
  padding: 0 16px;
  border-bottom: 1px solid var(--line);
  flex: none;
}
.scroll {
  position: relative;
  overflow-y: auto;
  padding: 16px 20px 80px;
  flex: 1;
}
.page {
  padding: 24px 28px;
  max-width: 640px;
  margin: 0 auto;
  box-sizing: border-box;
}
.page.desk {
  max-width: 900px;
}
.go {
  flex: 1 1 90px;
  max-width: 160px;
  min-width: 0;
  font-size: 13px;
  min-height: 26px;
}
.go.as {
  flex-basis: 136px;
}
.pane-bar .text-button {
  white-space: nowrap;
}
.more {
  position: relative;
}
.more summary {
  list-style: none;
  cursor: pointer;
}
.menu {
  position: absolute;
  right: 0;
  z-index: 25;
  width: 260px;
  padding: 12px;
  display: grid;
  gap: 6px;
  box-shadow: 0 6px 18px rgb(0 0 0 / 16%);
}
.not-shown {
  max-width: 640px;
  margin: 14px auto 0;
  color: var(--slate);
}
.not-shown li {
  margin: 3px 0 0 14px;
}
.page.phone {
  width: 360px;
  max-width: 100%;
  box-sizing: border-box;
  padding: 20px 16px;
}
.part {
  margin-bottom: 4px;
}
.said {
  border-left: 1px solid var(--line);
  padding-left: 12px;
  margin-top: 12px;
  white-space: pre-line;
}
.foot {
  margin-top: 28px;
}
.lit-line {
  background: var(--woad-wash);
  padding: 6px 12px;
  margin: 0 auto 12px;
  max-width: 672px;
}
.empty {
  padding: 40px;
  text-align: center;
}
</style>
