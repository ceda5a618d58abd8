<script setup lang="ts">
import { directionOf } from '#core/form/direction'
import { callLink, sendFile, useLinkApi } from '~/api/callLink'
import {
  FILE_ADDRESS,
  FILE_TAKER,
  OWN_FILE_ADDRESS,
  PARTY_ACCESS,
  ROW_FINDER,
} from '~/components/answer/keys'

/** The respondent's page: one page after the other, then a look at all answers, then sent. */
definePageMeta({ layout: 'quiet' })
const link = String(useRoute().params.token)
const call = useLinkApi()
const { data, error } = await useAsyncData(`answer-${link}`, () =>
  call('openLink', { params: { token: link } }),
)
// The form’s own link leads to its newest version, under whose link it goes on.
const token = data.value?.token ?? link
// The page says why in any case; its status is the server's.
const event = useRequestEvent()
if (error.value && event) setResponseStatus(event, error.value.status ?? 500)
if (data.value) await loadPatternsFor(data.value.definition)
const answering = useAnswering(token, data.value ?? null)
const { filled, stage, visible, kept, draft, sending, unknownParameters, begunOn, key, currentSending } =
  answering
const steps = useAnsweringSteps(answering, data.value?.today ?? '')
useStepCounts(token, data.value?.countsPages === true, answering)
const turnSteps = useTurnSteps(answering)
const turn = computed(() => data.value?.turn ?? null)
/** Where what is typed is kept. */
const keptWords = computed(() => {
  if (draft.state.value === 'kept') return 'Kept, also for going on elsewhere'
  return kept.isKept.value ? 'Kept on this device' : ''
})
const main = useTemplateRef('main')
const language = computed(() => data.value?.definition.language ?? 'en')
useHead({
  title: () => data.value?.definition.title ?? 'Form',
  htmlAttrs: {
    lang: language,
    dir: () => directionOf(language.value),
    class: () => (data.value?.definition.look ? 'looked' : ''),
  },
})
const look = computed(() => data.value?.definition.look)
if (look.value) useLook(() => look.value, (await import('~/theme/lookCss')).lookCss)
provide(PARTY_ACCESS, visible.access)
const addressOf = (file: string) => `/api/answer/${token}/files/${file}`
provide(FILE_ADDRESS, addressOf)
/** Whether there is a response already, whose files can be fetched. */
const isUnderWay = turn.value?.isFirst === false || Object.keys(data.value?.answers ?? {}).length > 0
if (data.value?.own || (turn.value && isUnderWay)) provide(OWN_FILE_ADDRESS, addressOf)
provide(FILE_TAKER, {
  take: async (question, file) => {
    try {
      return await sendFile({ params: { token }, query: { question, key: key.value, name: file.name } }, file)
    } catch (cause) {
      const { isBeginning, keepFile } = answering.offline
      if (!isBeginning || refusalOf(cause).code !== 'unreachable') throw cause
      return keepFile(question, key.value, file)
    }
  },
})
provide(ROW_FINDER, {
  find: (path, typed) => {
    const body = { path, typed, begunOn: begunOn.value, answers: currentSending().answers }
    return callLink('searchRows', { params: { token }, body })
  },
  remember: visible.rememberRow,
})
const begunBefore = useBegunBefore(link, token)
useFrameHeight()
/** Goes on with what was typed on another device. */
async function goOnWithTheirs() {
  const theirs = await answering.elsewhere.takeTheirs()
  if (theirs) answering.bringBack(theirs)
}
/** Goes on to the answers of a response that was sent. */
function correct() {
  stage.value = 'fill'
}
/** Why it can’t be sent yet, where something is to be signed. */
const signingProblem = ref('')
watch([stage, answering.signing], () => {
  signingProblem.value = ''
})
/** Sends what is signed, where something is to be. */
async function send() {
  const { signatures, missing } = answering.signing.value
  if (data.value?.signs && signatures === null) {
    signingProblem.value = missing
    return
  }
  await toTop(steps.send())
}
/** Goes to the top of what comes, where errors stand first. */
async function toTop(step: void | Promise<void>) {
  await step
  await nextTick()
  window.scrollTo({ top: 0 })
  main.value?.querySelector<HTMLElement>('.problems, h1')?.focus()
}
</script>

<template>
  <v-locale-provider :rtl="directionOf(language) === 'rtl'">
    <main
      ref="main"
      class="answer looked-text"
    >
      <template v-if="error || !data || !filled">
        <h1>{{ titleOfRefusal(error ? refusalOf(error).code : '') }}</h1>
        <p>{{ error ? refusalOf(error).sentence : 'Reload the page to try again.' }}</p>
        <p v-if="error && refusalOf(error).code === 'sign-in'">
          <a :href="`/sign-in?to=/f/${link}`">Sign in</a>
        </p>
        <LazyPassphraseDoor
          v-if="error && refusalOf(error).code === 'passphrase'"
          :link="link"
        />
      </template>
      <template v-else>
        <LazyLookPictures
          v-if="look?.logo || look?.heading"
          :look="look"
        />
        <div class="top">
          <strong>{{ data.definition.title }}</strong><span
            v-if="turn && !turn.isFirst"
            class="small quiet"
            >{{ turn.name }}</span
          ><span
            v-if="keptWords && stage !== 'sent'"
            class="quiet small"
            >{{ keptWords }}</span
          >
        </div>
        <LazyWaitingResponses
          v-if="answering.offline.waiting.value.length > 0"
          :offline="answering.offline"
          @take-back="response => toTop(answering.takeBack(response))"
        />
        <v-alert
          v-if="unknownParameters.length > 0 && stage === 'fill'"
          type="warning"
          role="status"
        >
          The link brings {{ unknownParameters.map(n => `“${n}”`).join(', ') }}, which this form does not
          know. It is left aside; please tell whoever sent the link.
        </v-alert>
        <template v-if="turn?.handedOffAt && stage !== 'sent'">
          <HandedOn
            :lines="turn.lines"
            :given-back-to="turn.givenBackTo"
          />
          <LazyDocumentsOffered
            v-if="turn.documents.length > 0"
            :documents="turn.documents"
            :token="token"
            sending-key="handed-on"
          />
        </template>
        <LazyOwnResponse
          v-else-if="stage === 'own' && data.own"
          :own="data.own"
          :filled="filled"
          :token="token"
          @correct="toTop(correct())"
        />
        <template v-else-if="stage === 'sent' && sending.message.value">
          <SentResponse
            :message="sending.message.value"
            :sent="sending.sent.value"
            :can-repeat="data.own === null && (turn === null || turn.isFirst)"
            @again="toTop(steps.startAnother())"
          />
          <LazyDocumentsOffered
            v-if="sending.sent.value && sending.sent.value.documents.length > 0"
            :documents="sending.sent.value.documents"
            :token="token"
            :sending-key="key"
          />
          <LazyResponseCopy
            v-if="sending.sent.value"
            :filled="filled"
            :number="sending.sent.value.number"
            :sent-at="sending.sent.value.sentAt"
            :token="token"
            :sending-key="key"
            :may-mail="!data.isAnonymous"
          />
        </template>
        <template v-else>
          <LazyGivenBack
            v-if="turn?.remark"
            :turn="turn"
            @go="code => toTop(steps.goToQuestion(code))"
          />
          <LazyBegunElsewhere
            v-if="draft.begunElsewhere.value && stage === 'fill'"
            :at="draft.begunElsewhere.value"
            :by="draft.others.value"
          />
          <LazyKeptByOthers
            v-if="draft.state.value === 'others'"
            :by="draft.others.value"
            @take-over="turnSteps.takeOver"
            @go-on-with-theirs="turnSteps.goOnWithTheirs"
          />
          <LazyKeptByOthers
            v-if="answering.elsewhere.state.value === 'others'"
            by="You or somebody with your link"
            @take-over="answering.elsewhere.takeOver()"
            @go-on-with-theirs="goOnWithTheirs"
          />
          <v-alert
            v-if="answering.elsewhere.problem.value && stage === 'fill'"
            type="warning"
            role="status"
          >
            {{ answering.elsewhere.problem.value }}
          </v-alert>
          <v-alert
            v-if="answering.isSentElsewhere.value"
            type="warning"
            role="alert"
          >
            <p>
              These answers were sent or dropped in another tab. Sent once more from here, they would not be
              stored twice.
            </p>
          </v-alert>
          <LazyBegunBefore
            v-if="begunBefore && stage === 'fill'"
            :link="begunBefore"
          />
          <p
            v-if="data.isAnonymous && stage === 'fill' && answering.pagination.at.value === 0"
            class="small quiet"
          >
            This form is anonymous: neither who you are, nor your address, nor the link is kept with your
            answers.
          </p>
          <AnswerProgress
            :count="answering.pagination.pages.value.length"
            :at="answering.pagination.at.value"
            :text="answering.pagination.progress.value"
            :is-last="stage === 'check'"
          />
          <CheckAnswers
            v-if="stage === 'check'"
            :filled="filled"
            :may-change="visible.isFilledHere"
            :refusal="sending.refusal.value ?? visible.refusal.value"
            :busy="sending.busy.value"
            :is-turn="turn !== null"
            :signs="(answering.signing.value.count ?? 0) > 0"
            @change="section => toTop(steps.goTo(section))"
            @back="toTop(steps.goBack())"
            @send="send"
          >
            <LazySignDocuments
              v-if="data.signs"
              v-model="answering.signing.value"
              :token="token"
              :sending="currentSending()"
              :problem="signingProblem"
              :refused="sending.refusal.value?.code ?? ''"
            />
          </CheckAnswers>
          <FillPage
            v-else
            :filled="filled"
            :answers="answering.answers.value"
            :pagination="answering.pagination"
            @answer="steps.answer"
            @next="toTop(steps.goOn())"
            @back="toTop(steps.goBack())"
          />
          <v-alert
            v-if="stage === 'fill' && sending.refusal.value"
            type="error"
          >
            {{ sending.refusal.value.sentence }}
          </v-alert>
          <LazyContinueElsewhere
            v-if="stage === 'fill' && !data.own && (!turn || turn.isFirst)"
            :token="token"
            :link="answering.elsewhere.link.value"
            :secret="answering.elsewhere.secret.value"
            :may-mail="!data.isAnonymous"
            :keep="answering.elsewhere.keep"
          />
          <LazyReturnTurn
            v-if="turn && turn.returnsTo.length > 0"
            :turns="turn.returnsTo"
            :busy="sending.busy.value"
            @give-back="returning => toTop(turnSteps.giveBack(returning))"
          />
        </template>
      </template>
    </main>
  </v-locale-provider>
</template>

<style scoped>
.answer {
  width: 100%;
  max-width: var(--page-width, 600px);
  box-sizing: border-box;
  margin: 0 auto;
  padding: 36px 16px 80px;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 28px;
  overflow-wrap: anywhere;
}
.top {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
@media (max-width: 480px) {
  .answer {
    padding-top: 20px;
  }
}
</style>
