<script setup lang="ts">
import { SEVERITY_MARKS } from '~/theme/severityMarks'
import { sayWhyFallen } from '#core/prove/acceptanceChanges'
import { collides, foldedWords, isMiss, type Finding } from '#core/prove/finding'

const props = defineProps<{ finding: Finding; chosen?: boolean }>()
const draft = useDraft()
const findings = useFindings()
const rehearsal = useRehearsal()
const route = useRoute()
const WORDS = { fault: 'Fault', risk: 'Risk', advice: 'Advice' } as const
const number = computed(() => draft.places.find(p => p.address === props.finding.address)?.number ?? '')
const accepted = computed(() => findings.accepted.get(props.finding) ?? null)
const lapsed = computed(() => findings.lapsed.get(props.finding) ?? null)
/** What has changed since somebody accepted it, where that has fallen away. */
const whyFallen = computed(() =>
  draft.form && lapsed.value ? sayWhyFallen(draft.form, props.finding, lapsed.value, draft.places) : '',
)
/** The reason being written; null while none is asked for. */
const reason = ref<string | null>(null)
const refused = ref('')
const field = useTemplateRef('field')

async function show() {
  if (!props.finding.witness) return
  rehearsal.show(props.finding)
  draft.select(props.finding.address)
  if (!route.path.endsWith('/write')) await navigateTo(`/forms/${draft.id}/write`)
}
function mend() {
  if (props.finding.mend) draft.edit(props.finding.mend.edits)
}
function ask() {
  if (props.finding.severity !== 'risk' || accepted.value) return
  reason.value ??= lapsed.value?.reason ?? ''
  void nextTick(() => field.value?.focus())
}
async function accept(words: string) {
  refused.value = ''
  try {
    await findings.accept(props.finding, words)
    reason.value = null
  } catch (error) {
    refused.value = refusalOf(error).sentence
  }
}
defineExpose({ is: (finding: Finding) => finding === props.finding, show, mend, ask })
</script>

<template>
  <div
    class="finding"
    :class="[accepted ? 'accepted' : finding.severity, { chosen }]"
  >
    <span
      class="sign"
      aria-hidden="true"
      >{{ accepted ? '✓' : SEVERITY_MARKS[finding.severity] }}</span
    >
    <div>
      <p>
        <span class="hidden-words"
          >{{
            accepted ? `Accepted ${WORDS[finding.severity].toLowerCase()}` : WORDS[finding.severity]
          }}: </span
        >{{ finding.sentence }}
      </p>
      <p class="small quiet">
        <template v-if="finding.at"
          >{{ number }} <code>{{ finding.at }}</code> · </template
        >{{ finding.code
        }}<template v-if="finding.conflict.length > 1">
          · {{ finding.conflict.length }} rules {{ collides(finding) ? 'collide' : 'concerned' }}</template
        ><template v-if="finding.folded.length > 0"> · {{ foldedWords(finding) }}</template>
      </p>
      <p
        v-if="accepted"
        class="small"
      >
        Accepted by {{ accepted.by }} on {{ readableDay(accepted.at) }}: {{ accepted.reason }}
      </p>
      <p
        v-if="lapsed"
        class="small"
      >
        Was accepted by {{ lapsed.by }} on {{ readableDay(lapsed.at) }}: {{ lapsed.reason }}
        <span class="quiet">{{ whyFallen }}</span>
      </p>
      <form
        v-if="reason !== null && !accepted"
        class="why"
        @submit.prevent="accept(reason.trim())"
        @click.stop
        @keydown.stop
      >
        <label class="small"
          >Why this risk is acceptable
          <v-textarea
            ref="field"
            v-model="reason"
            rows="2"
            maxlength="2000"
            @keydown.esc="reason = null"
            @keydown.ctrl.enter="reason.trim() && accept(reason.trim())"
          />
        </label>
        <div class="row-flex">
          <v-btn
            type="submit"
            :disabled="!reason.trim()"
          >
            Accept</v-btn
          ><v-btn
            variant="text"
            @click="reason = null"
          >
            Not now
          </v-btn>
        </div>
      </form>
      <RefusalAlert :refusal="refused" />
      <div class="row-flex">
        <v-btn
          v-if="finding.witness"
          variant="text"
          @click.stop="show"
        >
          {{ isMiss(finding) ? 'Show the nearest miss' : 'Show me' }}
        </v-btn>
        <v-btn
          v-if="finding.mend"
          variant="text"
          @click.stop="mend"
        >
          Mend: {{ finding.mend.words }}
        </v-btn>
        <v-btn
          v-if="finding.severity === 'risk' && !accepted && reason === null"
          variant="text"
          @click.stop="ask"
        >
          Accept …
        </v-btn>
        <v-btn
          v-if="finding.severity === 'advice' && !accepted"
          variant="text"
          @click.stop="accept('That is meant.')"
        >
          That is meant
        </v-btn>
        <v-btn
          v-if="accepted"
          variant="text"
          @click.stop="accept('')"
        >
          Take the acceptance back
        </v-btn>
      </div>
    </div>
  </div>
</template>

<style scoped>
.finding {
  display: grid;
  grid-template-columns: 28px 1fr;
  color: var(--ink);
  font-size: 14px;
}
.finding p:first-child {
  font-weight: 600;
}
.fault .sign {
  color: var(--madder);
}
.risk .sign {
  color: var(--weld);
}
.advice .sign {
  color: var(--woad);
}
.accepted .sign {
  color: var(--verdigris);
}
.accepted p:first-child {
  font-weight: 400;
}
.why {
  display: grid;
  gap: 6px;
  margin: 6px 0;
  max-width: 560px;
}
</style>
