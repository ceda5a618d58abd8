<script setup lang="ts">
import { momentInWords, type Opening, type OpeningState } from '#core/form/opening'
import { API } from '#shared/api/endpoints'
import { callApi } from '~/api/callApi'

/** The address of the form, whether it takes responses, and what decides that. */
const draft = useDraft()
const params = { id: draft.id }
const {
  data: opening,
  error,
  refresh,
} = await useAsyncData(
  () => `opening-${draft.id}`,
  () => callApi(API.loadOpening, { params }),
  { server: false },
)
const refusal = ref<ReturnType<typeof refusalOf> | null>(null)
const busy = ref(false)
const copied = ref(false)
const address = computed(() => `${window.location.origin}/f/${opening.value?.token ?? ''}`)
const mayChange = computed(() => draft.may('release'))

const WORDS: Record<OpeningState, (o: Opening) => string> = {
  open: o => (o.closesAt === null ? 'Open' : `Open until ${momentInWords(o.closesAt, o.zone)}`),
  before: o => (o.opensAt === null ? 'Not open yet' : `Opens on ${momentInWords(o.opensAt, o.zone)}`),
  between: () => 'Closed for now',
  after: o => (o.closesAt === null ? 'Closed' : `Closed since ${momentInWords(o.closesAt, o.zone)}`),
  full: () => 'Full',
}
const standing = computed(() => {
  if (!opening.value) return ''
  const { standing: count, settings } = opening.value
  return settings.most === null ? counted(count, 'response') : `${count} of ${settings.most} responses`
})

/** Tries something; true when it was done. */
async function attempt(run: () => Promise<unknown>): Promise<boolean> {
  busy.value = true
  refusal.value = null
  try {
    await run()
    return true
  } catch (cause) {
    refusal.value = refusalOf(cause)
    return false
  } finally {
    busy.value = false
  }
}
/** Saves the settings; true when they are in force. */
const save = (settings: Opening) =>
  attempt(async () => {
    opening.value = await callApi(API.saveOpening, { params, body: settings })
  })
/** What each panel saves is its own part of the settings. */
const saveTimes = (times: Opening) => {
  const { isClosed, audience, embedOn, needsApproval } = opening.value?.settings ?? times
  return save({ ...times, isClosed, audience, embedOn, needsApproval })
}
const saveAudience = async (audience: Opening['audience']) =>
  opening.value ? save({ ...opening.value.settings, audience }) : false
/** Does something beside the settings, then shows what holds now. */
const again = (run: () => Promise<unknown>) => attempt(() => run().then(() => refresh()))
const savePassphrase = (passphrase: string | null) =>
  again(() => callApi(API.savePassphrase, { params, body: { passphrase } }))
const makeCode = () => again(() => callApi(API.makeShortAddress, { params }))
async function copy() {
  await navigator.clipboard.writeText(address.value)
  copied.value = true
}
</script>

<template>
  <section
    class="sheet opening"
    aria-label="Opening"
  >
    <RefusalAlert :refusal="error ? refusalOf(error) : refusal" />
    <template v-if="opening">
      <div class="row-flex">
        <h2 class="spread">
          <span
            class="light"
            :class="{ on: opening.state === 'open' }"
            aria-hidden="true"
          />
          {{ WORDS[opening.state](opening.settings) }}
        </h2>
        <span class="quiet">{{ standing }}</span>
        <v-btn
          v-if="mayChange"
          :disabled="busy"
          @click="save({ ...opening.settings, isClosed: !opening.settings.isClosed })"
        >
          {{ opening.settings.isClosed ? 'Open again' : 'Close' }}
        </v-btn>
      </div>
      <div class="row-flex">
        <a
          :href="`/f/${opening.token}`"
          target="_blank"
          class="code address"
          data-testid="address"
          >{{ address }}</a
        >
        <v-btn
          variant="text"
          @click="copy"
        >
          {{ copied ? 'Copied' : 'Copy the link' }}
        </v-btn>
      </div>
      <p class="small quiet">
        Leads to the newest version. Who has begun an older one finishes that; what was begun on a device is
        kept there.
      </p>
      <FoldedPart
        v-if="mayChange"
        title="Opening and closing, limit, corrections, words"
      >
        <OpeningSettings
          :opening="opening.settings"
          :busy="busy"
          :save="saveTimes"
        />
      </FoldedPart>
      <FoldedPart
        v-if="mayChange"
        :title="`Who may answer: ${AUDIENCE_WORDS[opening.settings.audience.who]}`"
      >
        <AudienceSettings
          :audience="opening.settings.audience"
          :has-passphrase="opening.hasPassphrase"
          :busy="busy"
          :save="saveAudience"
          :save-passphrase="savePassphrase"
        />
      </FoldedPart>
      <FoldedPart title="Short address, QR code, embedding">
        <AddressTools
          :opening="opening"
          :address="address"
          :may-change="mayChange"
          :save="save"
          :make-code="makeCode"
        />
      </FoldedPart>
      <ul
        v-if="opening.places.length > 0"
        class="small places"
        aria-label="Places"
      >
        <li
          v-for="p in opening.places"
          :key="`${p.question} ${p.option}`"
          :class="{ risk: p.taken >= p.places }"
        >
          <code>{{ p.option }}</code> {{ p.taken }} of {{ p.places }} taken
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.opening {
  display: grid;
  gap: 10px;
  padding: 20px 24px;
}
h2 {
  display: flex;
  align-items: center;
  gap: 10px;
}
.light {
  width: 11px;
  height: 11px;
  border-radius: 50%;
  border: 2px solid var(--slate);
  flex: none;
}
.light.on {
  border-color: var(--verdigris);
  background: var(--verdigris);
}
ul.places {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  list-style: none;
}
.address {
  overflow-wrap: anywhere;
}
</style>
