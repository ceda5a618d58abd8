<script setup lang="ts">
import { readableDate } from '#core/expressions/dates'
import { placeName } from '#core/form/walk'
import type { Finding } from '#core/prove/finding'
import { useEvidence } from '~/composables/prove/useEvidence'

/** What a finding rests on: the rules that collide, and answers that lead there. */
const props = defineProps<{ finding: Finding }>()
const draft = useDraft()
const rehearsal = useRehearsal()
const { parts, partsTitle, turn, answers, isNearestMiss } = useEvidence(() => props.finding)
const listCode = computed(() => /^list\/(.+)$/.exec(props.finding.address ?? '')?.[1] ?? null)
/** What is folded into the finding, by name. */
const behind = computed(() =>
  props.finding.folded.map(({ code, address }) => {
    const place = draft.places.find(p => p.address === address)
    return { code, address, name: place ? placeName(place) : code }
  }),
)
const witnessTitle = computed(() => {
  if (!isNearestMiss.value) return 'The fewest answers that lead there'
  return 'Answers that lead to its place and make as much of its rule true as can be'
})
async function rehearse() {
  rehearsal.show(props.finding)
  draft.select(props.finding.address)
  await navigateTo(`/forms/${draft.id}/write`)
}
</script>

<template>
  <aside
    class="evidence"
    aria-label="Evidence"
  >
    <h2>Evidence</h2>
    <ListEvidence
      v-if="listCode && finding.inList"
      :code="listCode"
      :in-list="finding.inList"
    />
    <template v-if="turn">
      <p class="quiet small">The turn</p>
      <div class="sheet part">
        <p class="small quiet">{{ turn.name }}</p>
        <p class="small">{{ turn.words }}</p>
      </div>
    </template>
    <template v-if="finding.marked && !isNearestMiss">
      <p class="quiet small">As it is written</p>
      <div class="sheet part">
        <MarkedText :marked="finding.marked" />
      </div>
    </template>
    <p
      v-if="parts.length > 0"
      class="quiet small"
    >
      {{ partsTitle }}
    </p>
    <div
      v-if="parts.length > 0"
      class="sheet parts"
    >
      <div
        v-for="(p, i) in parts"
        :key="i"
        class="part"
      >
        <p class="small quiet">{{ p.name }}</p>
        <RuleSentence
          v-if="p.rule"
          :words="p.words"
          :text="p.rule.text"
        />
        <p
          v-else-if="p.plain"
          class="small"
        >
          {{ p.plain }}
        </p>
      </div>
    </div>
    <template v-if="behind.length > 0">
      <h2>Behind it</h2>
      <p class="quiet small">
        For the same reason these can never come into play; they have no finding of their own
      </p>
      <ul class="sheet behind">
        <li
          v-for="b in behind"
          :key="b.address"
        >
          {{ b.name }} <code class="quiet small">{{ b.code }}</code>
        </li>
      </ul>
    </template>
    <template v-if="finding.witness">
      <h2>{{ isNearestMiss ? 'Nearest miss' : 'Witness' }}</h2>
      <p
        v-if="finding.today"
        class="small"
      >
        On {{ readableDate(finding.today) }}
      </p>
      <p class="quiet small">{{ witnessTitle }}</p>
      <dl
        v-if="answers.length > 0"
        class="sheet answers"
      >
        <div
          v-for="a in answers"
          :key="a.path"
        >
          <dt>
            <span
              v-if="a.entry"
              class="entry small quiet"
              >{{ a.entry }}</span>{{ a.name }}
          </dt>
          <dd>{{ a.value }}</dd>
        </div>
      </dl>
      <p
        v-else
        class="small"
      >
        No answer is needed: it stands where the form begins.
      </p>
      <template v-if="isNearestMiss && finding.marked">
        <p class="quiet small">What is marked in its rule is not true then</p>
        <div class="sheet part">
          <MarkedText :marked="finding.marked" />
        </div>
      </template>
      <v-btn
        variant="flat"
        color="primary"
        @click="rehearse"
      >
        Rehearse these answers
      </v-btn>
    </template>
  </aside>
</template>

<style scoped>
.evidence {
  padding: 16px 20px;
  overflow-y: auto;
  display: grid;
  gap: 8px;
  align-content: start;
}
h2 {
  font-size: 15px;
}
h2:not(:first-child) {
  margin-top: 14px;
}
.entry {
  display: block;
  padding-bottom: 2px;
}
.part {
  padding: 12px 16px;
  border-bottom: 1px solid var(--line);
}
.part:last-child {
  border-bottom: 0;
}
.behind {
  margin: 0;
  padding: 6px 16px;
  list-style: none;
}
.behind li {
  padding: 5px 0;
}
.answers {
  padding: 4px 16px;
}
.answers div {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: end;
  padding: 8px 0;
  border-bottom: 1px dotted var(--line);
}
.answers div:last-child {
  border-bottom: 0;
}
dd {
  font-weight: 700;
  text-align: right;
}
</style>
