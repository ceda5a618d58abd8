<script setup lang="ts">
import { findClosingMessage } from '#core/fill/closing'
import type { Frame } from '#core/fill/fill'
import { pagesOf } from '#core/fill/pages'
import type { Address } from '#core/form/walk'
import { useRehearsedParty } from '~/composables/rehearse/useRehearsedParty'
import { EXPLAIN, FILE_TAKER, PARTY_ACCESS } from '../answer/keys'
import type { Width } from './RehearsalBar.vue'

/** The live form beside the design. */
const props = defineProps<{ large?: boolean; begin?: string }>()
const draft = useDraft()
const rehearsal = useRehearsal()
const width = ref<Width>(props.large ? 'desk' : 'tablet')
const sheet = useTemplateRef('sheet')
const { as, turns, turn, filled, answers, access, place } = useRehearsedParty(props.begin ?? null)
const pagination = usePagination(filled, place)
const { at, page, nextText, progress, tried } = pagination
const finished = ref(false)
const said = ref('')
const closing = computed(() => (filled.value ? findClosingMessage(filled.value) : null))
/** The entry asked about, or the response as it is now: the panel follows the answers. */
const asked = shallowRef<{ address: Address; frame: Frame | null } | null>(null)
const askWhy = (address: Address) => (asked.value = { address, frame: null })
provide(PARTY_ACCESS, access)
// Nothing is sent while rehearsing: a file is only named.
provide(FILE_TAKER, {
  take: (_question, file) =>
    Promise.resolve({ file: `rehearsal-${Date.now()}`, name: file.name, bytes: file.size }),
})
provide(EXPLAIN, (address, frame) => {
  const isOfForm = frame === rehearsal.filled || frame === filled.value
  as.value = null
  asked.value = { address, frame: isOfForm ? null : frame }
})

function goOn() {
  if (pagination.goOn() === 'end') finished.value = true
  sheet.value?.scrollTo({ top: 0 })
}
function startAfresh() {
  rehearsal.startAfresh()
  finished.value = false
  tried.value = false
  asked.value = null
  said.value = 'Started afresh.'
}
function jump(i: number) {
  finished.value = false
  if (filled.value?.path.includes(i)) {
    rehearsal.place = pagesOf(filled.value).find(p => p.section === i) ?? rehearsal.place
    return
  }
  const section = draft.places.find(p => p.kind === 'section' && p.section === i)
  if (section) askWhy(section.address)
}
function onKey(event: KeyboardEvent) {
  if (!event.altKey || event.ctrlKey || event.key.toLowerCase() !== 'n') return
  event.preventDefault()
  startAfresh()
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
watch([() => rehearsal.place, () => draft.id], () => (finished.value = false))
const scrollToLit = () => sheet.value?.querySelector('.lit')?.scrollIntoView({ block: 'center' })
watch(
  () => rehearsal.lit,
  lit => {
    if (lit) void nextTick(scrollToLit)
  },
)
</script>

<template>
  <section
    class="rehearsal"
    aria-label="Rehearsal"
  >
    <RehearsalBar
      v-model:as="as"
      v-model:width="width"
      :turns="turns"
      :section="page?.section ?? null"
      @jump="jump"
      @afresh="startAfresh"
      @said="said = $event"
    />
    <span
      class="hidden-words"
      role="status"
      >{{ said }}</span
    >
    <div
      ref="sheet"
      class="scroll"
    >
      <template v-if="!turn">
        <LitLine @why="askWhy" />
        <WhyPanel
          v-if="asked && filled"
          :address="asked.address"
          :filled="filled"
          :frame="asked.frame ?? filled"
          @close="asked = null"
        />
      </template>
      <div
        v-if="filled && page"
        class="sheet page"
        :class="width"
      >
        <RehearsedEnd
          v-if="finished && closing"
          :closing="closing"
          @back="finished = false"
        />
        <template v-else>
          <p class="quiet small part">{{ progress }}</p>
          <AnswerSection
            :filled="filled"
            :page="page"
            :answers="answers"
            :tried="tried"
            :lit="rehearsal.lit"
            prefix="try"
            @answer="rehearsal.answer"
          />
          <div class="row-flex foot">
            <v-btn
              :disabled="at === 0"
              @click="pagination.goBack"
            >
              Back
            </v-btn>
            <span class="spread" />
            <v-btn
              variant="flat"
              color="primary"
              @click="goOn"
            >
              {{ nextText }}
            </v-btn>
          </div>
        </template>
      </div>
      <p
        v-else
        class="quiet empty"
      >
        The form has no section that can be shown yet.
      </p>
      <HiddenHere
        v-if="page && !turn"
        :section="page.section"
        @why="askWhy"
      />
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
.page.phone {
  width: 360px;
  max-width: 100%;
  padding: 20px 16px;
}
.part {
  margin-bottom: 4px;
}
.foot {
  margin-top: 28px;
}
.empty {
  padding: 40px;
  text-align: center;
}
</style>
