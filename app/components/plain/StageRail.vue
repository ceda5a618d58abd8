<script setup lang="ts">
const props = defineProps<{ stage: string }>()
const draft = useDraft()
const findings = useFindings()
const questions = computed(() => draft.places.filter(p => p.kind === 'question').length)
/** What was accepted as undecided stays undecided. */
const undecided = computed(() => findings.verdict?.tally.undecided ?? 0)
const openNote = computed(() => ({ text: `${undecided.value} not decided`, as: 'risk' }))
const latest = computed(() => draft.releases[0])
const responsesNote = computed(() =>
  draft.responses ? [{ text: counted(draft.responses, 'response'), as: '' }] : [],
)
const stages = computed(() => [
  { key: 'write', name: 'Write', notes: [{ text: counted(questions.value, 'question'), as: '' }] },
  { key: 'rehearse', name: 'Rehearse', notes: [] },
  {
    key: 'prove',
    name: 'Prove',
    notes: [
      ...(findings.faults.length > 0
        ? [{ text: counted(findings.faults.length, 'fault'), as: 'fault' }]
        : []),
      ...(findings.risks.length > 0 ? [{ text: counted(findings.risks.length, 'risk'), as: 'risk' }] : []),
      ...(findings.isWhole && findings.faults.length + findings.risks.length === 0
        ? [undecided.value > 0 ? openNote.value : { text: 'all decided', as: 'proven' }]
        : []),
    ],
  },
  {
    key: 'release',
    name: 'Release',
    notes: [{ text: latest.value ? `version ${latest.value.number}` : 'not yet', as: '' }],
  },
  {
    key: 'collect',
    name: 'Collect',
    notes: responsesNote.value,
  },
])
function tone(key: string): 'fault' | 'risk' | '' {
  if (key !== 'prove' || !findings.isWhole) return ''
  if (findings.faults.length > 0) return 'fault'
  return findings.risks.length > 0 ? 'risk' : ''
}
</script>

<template>
  <nav
    class="rail"
    aria-label="Stages"
  >
    <ol>
      <li
        v-for="(s, i) in stages"
        :key="s.key"
      >
        <span
          v-if="i > 0"
          class="thread"
          aria-hidden="true"
        />
        <NuxtLink
          :to="`/forms/${draft.id}/${s.key}`"
          :class="{ here: props.stage === s.key }"
          :aria-current="props.stage === s.key ? 'page' : undefined"
        >
          <span
            class="ring"
            :class="tone(s.key)"
            aria-hidden="true"
          />
          <span class="name">{{ s.name }}</span>
          <span
            v-for="n in s.notes"
            :key="n.text"
            class="note"
            :class="n.as"
            >{{ n.text }}</span
          >
        </NuxtLink>
      </li>
    </ol>
  </nav>
</template>

<style scoped>
.rail {
  height: 46px;
  border-bottom: 1px solid var(--line);
  padding: 0 20px;
  overflow-x: auto;
}
ol {
  display: flex;
  height: 100%;
  align-items: center;
}
li {
  display: flex;
  align-items: center;
  flex: none;
}
a {
  display: inline-flex;
  align-items: center;
  gap: 10px;
  color: var(--slate);
  text-decoration: none;
  padding: 4px 0;
}
.name {
  font-size: 15px;
}
.here .name {
  color: var(--ink);
  font-weight: 700;
}
.ring {
  width: 14px;
  height: 14px;
  border: 2px solid currentColor;
  border-radius: 50%;
  box-sizing: border-box;
  background: var(--linen);
}
.here .ring {
  border: 4px solid var(--verdigris);
}
.ring.fault {
  border-color: var(--madder);
}
.ring.risk {
  border-color: var(--weld);
}
.note {
  font-size: 13px;
}
.thread {
  width: 32px;
  height: 2px;
  background: var(--line);
  margin: 0 10px;
}
/* In a narrow window all stages stay in sight, and what is said of the one that is open. */
@media (max-width: 899px) {
  .thread {
    width: 12px;
    margin: 0 8px;
  }
  a:not(.here) .note {
    display: none;
  }
}
</style>
