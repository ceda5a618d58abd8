<script setup lang="ts">
import { mdiRestart } from '@mdi/js'
import type { FrameWidth } from '~/composables/rehearse/useRehearsalFrames'
import { useRehearsing } from '~/composables/rehearse/useRehearsing'

/** The live form beside the design. */
const rehearsal = useRehearsal()
const as = ref<string | null>(null)
const width = ref<FrameWidth>('tablet')
const { asked, said, askWhy, startAfresh } = useRehearsing()
</script>

<template>
  <section
    class="rehearsal"
    aria-label="Rehearsal"
  >
    <RehearsalFrame
      v-model:as="as"
      v-model:width="width"
      prefix="try"
      @why="(address, frame) => ((as = null), askWhy(address, frame))"
    >
      <template #before><strong>Rehearsal</strong></template>
      <template #tools>
        <AnswerSets @said="said = $event" />
        <IconButton
          :icon="mdiRestart"
          name="Start afresh"
          keys="Alt N"
          aria-keyshortcuts="Alt+N"
          @click="startAfresh"
        />
      </template>
      <template #above>
        <LitLine @why="askWhy" />
        <WhyPanel
          v-if="asked && rehearsal.filled"
          :address="asked.address"
          :filled="rehearsal.filled"
          :frame="asked.frame ?? rehearsal.filled"
          @close="asked = null"
        />
      </template>
      <template #below="{ section }">
        <HiddenHere
          :section="section"
          @why="askWhy"
        />
      </template>
    </RehearsalFrame>
    <span
      class="hidden-words"
      role="status"
      >{{ said }}</span
    >
  </section>
</template>

<style scoped>
.rehearsal {
  min-height: 0;
  height: 100%;
}
</style>
