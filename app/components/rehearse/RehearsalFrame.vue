<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { findClosingMessage } from '#core/fill/closing'
import type { Frame } from '#core/fill/fill'
import { pagesOf } from '#core/fill/pages'
import type { Address } from '#core/form/walk'
import { turnName } from '#core/parties/turns'
import { FRAME_WIDTHS, type FrameWidth } from '~/composables/rehearse/useRehearsalFrames'
import { useRehearsedParty } from '~/composables/rehearse/useRehearsedParty'
import { lookCss } from '~/theme/lookCss'
import { keepPracticeFile } from '~/composables/rehearse/practiceFiles'
import { EXPLAIN, FILE_TAKER, PARTY_ACCESS } from '../answer/keys'

/** The live form as one party sees it on one device. */
const as = defineModel<string | null>('as', { required: true })
const width = defineModel<FrameWidth>('width', { required: true })
const props = defineProps<{
  prefix: string
  /** As wide as the device is, made smaller as a whole where there is less room. */
  toScale?: boolean
}>()
const emit = defineEmits<{ why: [address: Address, frame: Frame | null] }>()
const draft = useDraft()
const rehearsal = useRehearsal()
const scroll = useTemplateRef('scroll')
const { turns, turn, filled, answers, access, place } = useRehearsedParty(as)
const pagination = usePagination(filled, place)
const { at, page, nextText, progress, tried } = pagination
const finished = ref(false)
const closing = computed(() => (filled.value ? findClosingMessage(filled.value) : null))
provide(PARTY_ACCESS, access)
// Nothing is sent while rehearsing: a file is only named, and shown in documents where it is a picture.
provide(FILE_TAKER, {
  take: async (_question, file) => {
    const id = `rehearsal-${newKey()}`
    await keepPracticeFile(id, file)
    return { file: id, name: file.name, bytes: file.size }
  },
})
provide(EXPLAIN, (address, frame) => {
  const isOfForm = frame === rehearsal.filled || frame === filled.value
  emit('why', address, isOfForm ? null : frame)
})

/** What stands to the left and right of the sheet, in CSS pixels. */
const MARGINS = 32
/** Smaller than this nobody reads it; it is scrolled sideways then. */
const SMALLEST = 0.45
const { width: room } = useElementSize(scroll, undefined, { box: 'border-box' })
const scale = computed(() => {
  if (!props.toScale || room.value === 0) return 1
  return Math.max(SMALLEST, Math.min(1, (room.value - MARGINS) / FRAME_WIDTHS[width.value]))
})
const sheetStyle = computed(() =>
  props.toScale ? { width: `${FRAME_WIDTHS[width.value]}px`, zoom: scale.value } : undefined,
)

const look = computed(() => draft.form?.look)
useLook(() => look.value, lookCss)

function goOn() {
  if (pagination.goOn() === 'end') finished.value = true
  scroll.value?.scrollTo({ top: 0 })
}
/** Whose turn it is, where it is not that of this frame. */
const waits = computed(() => {
  const { open } = rehearsal.baton
  const { form } = draft
  if (!turn.value || !form || open.some(t => t.code === turn.value?.code)) return ''
  const names = open.map(t => turnName(form, t)).join(' and ')
  return names === '' ? 'the response is done' : `it is the turn of ${names}`
})
function takeTurn(code: string) {
  finished.value = false
  tried.value = false
  as.value = code
}
/** A turn begins at its first page. */
watch(as, () => {
  finished.value = false
  place.value = { section: filled.value?.path[0] ?? 0, only: null }
})
function jump(i: number) {
  finished.value = false
  if (filled.value?.path.includes(i)) {
    place.value = pagesOf(filled.value).find(p => p.section === i) ?? place.value
    return
  }
  const section = draft.places.find(p => p.kind === 'section' && p.section === i)
  if (section) emit('why', section.address, null)
}
watch([() => rehearsal.place, () => draft.id], () => (finished.value = false))
/** A party’s frame goes along where its form has the section too. */
watch(
  () => rehearsal.place.section,
  section => {
    if (!turn.value || !filled.value) return
    const code = draft.form?.sections[section]?.code
    const own = filled.value.plan.sections.findIndex(s => s.place.code === code)
    if (filled.value.path.includes(own)) place.value = { section: own, only: null }
  },
  { immediate: true },
)
watch(
  () => rehearsal.rounds,
  () => {
    finished.value = false
    tried.value = false
    place.value = { section: filled.value?.path[0] ?? 0, only: null }
  },
)
const scrollToLit = () => scroll.value?.querySelector('.lit')?.scrollIntoView({ block: 'center' })
watch(
  () => rehearsal.lit,
  lit => {
    if (lit) void nextTick(scrollToLit)
  },
)
</script>

<template>
  <div class="frame">
    <RehearsalBar
      v-model:as="as"
      v-model:width="width"
      :turns="turns"
      :section="page?.section ?? null"
      :scale="scale"
      @jump="jump"
    >
      <template #before><slot name="before" /></template>
      <slot name="tools" />
    </RehearsalBar>
    <div
      ref="scroll"
      class="scroll"
    >
      <slot
        v-if="!turn"
        name="above"
      />
      <div
        v-if="filled && page"
        class="sheet page"
        :class="[width, { scaled: toScale, 'looked looked-text': look }]"
        :style="sheetStyle"
      >
        <LookPictures
          v-if="look"
          :look="look"
        />
        <RehearsedHandOff
          v-if="finished && turn"
          :turn="turn"
          @back="finished = false"
          @take="takeTurn"
        />
        <RehearsedEnd
          v-else-if="finished && closing"
          :closing="closing"
          @back="finished = false"
        />
        <template v-else>
          <p class="quiet small part">
            {{ progress }}<span v-if="waits"> · {{ waits }}</span>
          </p>
          <AnswerSection
            :filled="filled"
            :page="page"
            :answers="answers"
            :tried="tried"
            :lit="rehearsal.lit"
            :prefix="prefix"
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
      <slot
        v-if="page && !turn"
        name="below"
        :section="page.section"
      />
    </div>
  </div>
</template>

<style scoped>
.frame {
  display: flex;
  flex-direction: column;
  min-height: 0;
  height: 100%;
}
.scroll {
  position: relative;
  overflow: auto;
  padding: 16px 16px 80px;
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
.page.scaled {
  max-width: none;
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
