<script setup lang="ts">
import type { Proposal } from '#core/form/proposals'
import type { Address } from '#core/form/walk'
import type { Suggestion } from '#shared/api/suggestions'
import { useProposalEffects } from '~/composables/suggest/useProposalEffects'

/** Everything that is suggested for the draft, and what was decided lately. */
const draft = useDraft()
const suggestions = useSuggestions()
const open = computed(() => suggestions.all.open)
const decided = computed(() => suggestions.all.decided)
const proposals = computed(
  (): ReadonlyMap<string, Proposal> =>
    new Map(open.value.flatMap(s => (s.proposal ? [[s.id, s.proposal] as const] : []))),
)
const effects = useProposalEffects(() => proposals.value)
const note = ref('')
const refusal = ref('')
async function run(what: () => Promise<void>) {
  refusal.value = ''
  try {
    await what()
  } catch (cause) {
    refusal.value = refusalOf(cause).sentence
  }
}
const remark = () =>
  run(async () => {
    await suggestions.remark(null, note.value.trim())
    note.value = ''
  })
const openAgain = (suggestion: Suggestion) => run(() => suggestions.decide(suggestion, null))
const mayOpen = (suggestion: Suggestion) =>
  draft.may('design') || (suggestion.own && suggestion.proposal === null)
function go(address: Address) {
  draft.select(address)
  void navigateTo({ query: {} })
}
const about = ({ about, note: words, proposal }: Suggestion) =>
  words || (proposal ? 'A proposal without words' : (about ?? ''))
</script>

<template>
  <section
    class="suggestions"
    aria-label="Suggestions"
  >
    <form
      v-if="draft.may('suggest')"
      class="row-flex"
      @submit.prevent="note.trim() && remark()"
    >
      <v-text-field
        v-model="note"
        aria-label="A remark on the whole form"
        placeholder="A remark on the whole form; rows have their own “Remark…”"
        maxlength="2000"
        hide-details
      /><v-btn
        type="submit"
        :disabled="!note.trim()"
        >Remark</v-btn
      >
    </form>
    <RefusalAlert :refusal="refusal" />
    <ul
      v-if="open.length > 0"
      class="cards"
    >
      <SuggestionCard
        v-for="s in open"
        :key="s.id"
        :suggestion="s"
        :effect="effects.get(s.id)"
        @go="go"
      />
    </ul>
    <p
      v-else
      class="quiet"
    >
      Nothing waits here. Whoever this form is shared with to “suggest” can remark on its rows and propose
      changes; each is proved here before anybody takes it.
    </p>
    <FoldedPart
      v-if="decided.length > 0"
      :title="`Decided lately (${decided.length})`"
    >
      <ul>
        <li
          v-for="s in decided"
          :key="s.id"
          class="decided small"
        >
          <span class="what"
            >{{ about(s) }}
            <span
              v-if="s.reply"
              class="quiet"
              >“{{ s.reply }}”</span
            ></span
          >
          <span class="quiet">{{ s.by }}</span>
          <span
            >{{ s.outcome }}<span class="quiet"> by {{ s.decidedBy }}</span></span
          >
          <v-btn
            v-if="mayOpen(s)"
            variant="text"
            @click="openAgain(s)"
            >Open again</v-btn
          >
        </li>
      </ul>
    </FoldedPart>
  </section>
</template>

<style scoped>
.suggestions {
  overflow-y: auto;
  flex: 1;
  padding: 12px 16px 60px;
  display: grid;
  gap: 12px;
  align-content: start;
  background: var(--paper);
}
.cards {
  display: grid;
  gap: 10px;
}
.decided {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 110px 170px 100px;
  gap: 10px;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  align-items: baseline;
}
.what {
  overflow-wrap: anywhere;
}
</style>
