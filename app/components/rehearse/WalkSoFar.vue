<script setup lang="ts">
import { describeFilled, type ResponseLine } from '#core/fill/describeResponse'
import { quotedText } from '#core/fill/quote'
import type { Address } from '#core/form/walk'

/** The way through the form as the answers lead: what was answered, what is blank, what stays hidden, what is not reached. */
const emit = defineEmits<{ why: [address: Address] }>()
const rehearsal = useRehearsal()
const draft = useDraft()

const isAnswered = (line: ResponseLine) => line.state === 'answered'
const sections = computed(() => {
  const { filled } = rehearsal
  if (!filled) return []
  const lines = describeFilled(filled).filter(l => l.state !== 'unasked' && l.type !== 'hidden')
  return filled.plan.sections.map((s, i) => ({
    i,
    title: quotedText(filled, s.place.node.title, s.place),
    address: s.place.address,
    isReached: filled.path.includes(i),
    ...told(
      lines.filter(l => l.section === i),
      i,
    ),
  }))
})
/** Where somebody stands every question is told; elsewhere what was answered, and how many are blank. */
function told(lines: readonly ResponseLine[], section: number) {
  const shown = section === rehearsal.place.section ? lines : lines.filter(isAnswered)
  const blank = lines.length - shown.length
  return { lines: shown, asked: lines.length, answered: lines.filter(isAnswered).length, blank }
}
const reached = computed(() => sections.value.filter(s => s.isReached))
const missed = computed(() => sections.value.filter(s => !s.isReached))
const here = computed(() => rehearsal.place.section)
const goTo = (section: number) => (rehearsal.place = { section, only: null })
const answered = computed(() => reached.value.reduce((sum, s) => sum + s.lines.filter(isAnswered).length, 0))
const asked = computed(() => reached.value.reduce((sum, s) => sum + s.lines.length, 0))
const hasSections = computed(() => (draft.form?.sections.length ?? 0) > 0)
</script>

<template>
  <div
    v-if="hasSections"
    class="walk"
  >
    <p class="small quiet">{{ answered }} of {{ asked }} questions on the way answered</p>
    <section
      v-for="s in reached"
      :key="s.address"
      :aria-label="s.title"
    >
      <v-btn
        variant="text"
        class="goto"
        :aria-current="s.i === here ? 'step' : undefined"
        @click="goTo(s.i)"
      >
        <span class="quiet">{{ s.i + 1 }}</span> {{ s.title }}
      </v-btn>
      <dl v-if="s.lines.length > 0">
        <div
          v-for="l in s.lines"
          :key="l.path"
        >
          <dt>{{ l.label }}</dt>
          <dd :class="{ blank: !isAnswered(l) }">{{ isAnswered(l) ? l.text : 'blank' }}</dd>
        </div>
      </dl>
      <p
        v-if="s.blank > 0"
        class="small quiet"
      >
        {{ s.blank }} blank
      </p>
      <HiddenHere
        :section="s.i"
        @why="emit('why', $event)"
      />
    </section>
    <section
      v-if="missed.length > 0"
      aria-label="Not on the way"
    >
      <p class="small quiet apart">Not on the way with these answers</p>
      <p
        v-for="s in missed"
        :key="s.address"
      >
        <v-btn
          variant="text"
          @click="emit('why', s.address)"
        >
          Why not {{ s.i + 1 }} {{ s.title }}?
        </v-btn>
      </p>
    </section>
  </div>
</template>

<style scoped>
.walk {
  display: grid;
  gap: 12px;
}
.goto {
  font-weight: 600;
}
.goto .quiet {
  font-weight: 400;
  margin-right: 6px;
}
.goto[aria-current] {
  box-shadow: inset 2px 0 0 var(--woad);
  padding-left: 8px;
}
dl {
  display: grid;
  font-size: 13px;
  line-height: 1.35;
}
dl div {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
  padding: 3px 0;
  border-bottom: 1px dotted var(--line);
}
dt {
  color: var(--slate);
}
dd {
  overflow-wrap: anywhere;
}
dd.blank {
  color: var(--slate);
  font-style: italic;
}
.apart {
  margin-bottom: 4px;
}
</style>
