<script setup lang="ts">
import { riskKey } from '#core/prove/acceptance'
import { API } from '#shared/api/endpoints'
import type { ReleaseBrief } from '#shared/api/releases'
import { callApi } from '~/api/callApi'

const draft = useDraft()
const findings = useFindings()
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
const busy = ref(false)
const copied = ref('')
const latest = computed(() => draft.releases[0])
const number = computed(() => (latest.value?.number ?? 0) + 1)
const accepted = computed(() => [...findings.accepted.keys()].filter(f => f.severity === 'risk'))
const linkOf = (token: string) => `${window.location.origin}/f/${token}`

/** The codes of which whoever releases says that they mean the same, and whether one is still to be decided. */
const sameMeanings = ref<string[]>([])
const isMeaningOpen = ref(false)
/** Whether the draft could be released as it stands. */
const isReady = computed(
  () =>
    draft.may('release') &&
    !findings.working &&
    findings.isWhole &&
    findings.faults.length === 0 &&
    findings.risks.length === 0 &&
    !isMeaningOpen.value &&
    latest.value?.sameAsDraft !== true,
)
/** With which version each is compared; the one right before it, unless another was chosen. */
const compared = ref<Record<number, number>>({})
const earlierThan = ({ number: own }: ReleaseBrief) => draft.releases.filter(r => r.number < own)
const comparedWith = (release: ReleaseBrief): ReleaseBrief =>
  earlierThan(release).find(r => r.number === compared.value[release.number]) ??
  earlierThan(release)[0] ??
  release

/** Withdraws a version, or puts it back. */
async function withdraw({ number: release, withdrawnAt }: (typeof draft.releases)[number]) {
  busy.value = true
  refusal.value = null
  try {
    const body = { isWithdrawn: withdrawnAt === null }
    await callApi(API.withdrawRelease, { params: { id: draft.id, release }, body })
    await draft.load(draft.id)
  } catch (error) {
    refusal.value = refusalOf(error)
  }
  busy.value = false
}
async function copy(token: string) {
  await navigator.clipboard.writeText(linkOf(token))
  copied.value = token
}
</script>

<template>
  <div class="release">
    <Suspense v-if="latest"><OpeningCard /></Suspense>
    <section
      class="sheet block"
      aria-label="Next version"
    >
      <h2>Version {{ number }}</h2>
      <p
        v-if="latest?.sameAsDraft"
        class="quiet"
      >
        The draft is the same as version {{ latest.number }}. There is nothing new to release.
      </p>
      <template v-else-if="findings.faults.length > 0">
        <p>
          <span class="fault"
            >✕
            {{
              findings.faults.length === 1
                ? 'One fault is open'
                : `${findings.faults.length} faults are open`
            }}.</span
          >
          A form with a fault is not released.
        </p>
        <FindingRow
          v-for="(f, i) in findings.faults"
          :key="i"
          :finding="f"
        />
      </template>
      <template v-else>
        <p>
          Releasing freezes the form as it stands now. Responses that are being filled in stay with the
          version they began.
        </p>
        <Suspense v-if="latest"
          ><OtherMeanings
            v-model:same="sameMeanings"
            v-model:is-open="isMeaningOpen"
            :version="latest"
        /></Suspense>
        <Suspense v-if="latest"><WhatChanges :version="latest" /></Suspense>
        <Suspense v-if="latest && draft.may('responses')"><StoredFit /></Suspense>
        <Suspense v-if="latest && draft.may('release')"><UnderWay /></Suspense>
        <p v-if="findings.risks.length > 0">
          <span class="risk"
            >▲
            {{
              findings.risks.length === 1 ? 'One risk is open' : `${findings.risks.length} risks are open`
            }}.</span
          >
          Mend it, or accept it with a reason; the release keeps the reason and your name.
        </p>
        <div
          v-for="f in [...findings.risks, ...accepted]"
          :key="riskKey(f)"
          class="risk-box"
        >
          <FindingRow :finding="f" />
        </div>
        <p
          v-if="findings.risks.length === 0 && accepted.length === 0 && findings.isWhole && findings.verdict"
          class="proven"
        >
          ✓ No fault and no risk: {{ counted(findings.verdict.tally.rules, 'rule') }} decided for all possible
          answers.
        </p>
      </template>
      <RefusalAlert :refusal="refusal" />
      <p
        v-if="!draft.may('release')"
        class="quiet"
      >
        You may not release this form; its owners can let you.
      </p>
      <Suspense>
        <SignOff
          :number="number"
          :is-ready="isReady"
          :same-meanings="sameMeanings"
        />
      </Suspense>
    </section>
    <Suspense v-if="latest && draft.may('release')"><WaysCard /></Suspense>
    <section
      class="block"
      aria-label="Versions"
    >
      <h2>Versions</h2>
      <v-empty-state
        v-if="draft.releases.length === 0"
        class="none"
        title="None yet"
        text="The first release gives the link that respondents open."
      />
      <div
        v-for="r in draft.releases"
        :key="r.id"
        class="sheet version"
      >
        <div class="row-flex">
          <strong>Version {{ r.number }}</strong>
          <span class="quiet"
            >released {{ readableDay(r.releasedAt)
            }}<template v-if="r.releasedBy"> by {{ r.releasedBy }}</template
            ><template v-if="r.askedBy">, asked for by {{ r.askedBy }}</template></span
          >
          <span
            v-if="r.withdrawnAt"
            class="risk small"
            >withdrawn {{ readableDay(r.withdrawnAt) }}</span
          >
          <span
            v-if="r.accepted.length > 0"
            class="risk small"
            >▲ {{ r.accepted.length }} accepted {{ r.accepted.length === 1 ? 'risk' : 'risks' }}</span
          >
        </div>
        <div class="row-flex">
          <a
            :href="`/f/${r.token}`"
            target="_blank"
            class="code"
            :data-testid="`link-${r.number}`"
            >{{ linkOf(r.token) }}</a
          >
          <v-btn
            variant="text"
            @click="copy(r.token)"
          >
            {{ copied === r.token ? 'Copied' : 'Copy the link' }}
          </v-btn>
          <v-btn
            v-if="draft.may('release')"
            variant="text"
            :disabled="busy"
            :title="
              r.withdrawnAt
                ? 'Takes responses again, and the form’s address leads to it if it is the newest'
                : 'Takes no responses any more, and the form’s address passes it over'
            "
            @click="withdraw(r)"
          >
            {{ r.withdrawnAt ? 'Put back' : 'Withdraw' }}
          </v-btn>
          <v-btn
            variant="text"
            :to="`/printed/form/${draft.id}?version=${r.number}`"
            target="_blank"
            title="This version as a paper form, to be filled with a pen"
            >On paper</v-btn
          >
          <ProofCheck
            v-if="draft.may('release')"
            :release="r.number"
          />
        </div>
        <p
          v-if="r.note"
          class="note"
        >
          {{ r.note }}
        </p>
        <FoldedPart
          v-if="earlierThan(r).length > 0"
          :title="`Beside version ${comparedWith(r).number}`"
        >
          <div class="beside">
            <v-select
              v-if="earlierThan(r).length > 1"
              :model-value="comparedWith(r).number"
              :items="earlierThan(r).map(e => ({ value: e.number, title: `Version ${e.number}` }))"
              aria-label="Compared with"
              @update:model-value="compared[r.number] = $event"
            />
            <Suspense>
              <WhatChanges
                :key="comparedWith(r).id"
                :version="comparedWith(r)"
                :later="r"
              />
            </Suspense>
          </div>
        </FoldedPart>
        <p
          v-for="(a, i) in r.accepted"
          :key="i"
          class="small quiet"
        >
          {{ a.finding.sentence }} Accepted by {{ a.by }}: {{ a.reason }}
        </p>
      </div>
    </section>
  </div>
</template>

<style scoped>
.release {
  max-width: 820px;
  margin: 0 auto;
  padding: 28px 20px;
  display: grid;
  gap: 28px;
  height: 100%;
  box-sizing: border-box;
  overflow-y: auto;
  align-content: start;
}
.block {
  display: grid;
  gap: 12px;
}
.sheet.block {
  padding: 24px;
}
.none {
  padding: 0;
}
.none :deep(.v-empty-state__title) {
  font-size: 15px;
}
.version {
  padding: 14px 18px;
  display: grid;
  gap: 6px;
}
.version .row-flex {
  flex-wrap: wrap;
}
.note {
  white-space: pre-line;
}
.beside {
  display: grid;
  gap: 10px;
}
.beside .v-select {
  max-width: 200px;
}
.risk-box {
  display: grid;
  gap: 6px;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
</style>
