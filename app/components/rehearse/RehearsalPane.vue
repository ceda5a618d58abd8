<script setup lang="ts">
import type { FrameWidth } from '~/composables/rehearse/useRehearsalFrames'
import { useRehearsing } from '~/composables/rehearse/useRehearsing'

/** The live form beside the design. */
const as = ref<string | null>(null)
const width = ref<FrameWidth>('tablet')
const { asked, askWhy, startAfresh } = useRehearsing()
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
        <RehearsalTools @afresh="startAfresh" />
      </template>
      <template #above>
        <RehearsalReasons v-model:asked="asked" />
      </template>
      <template #below="{ section }">
        <HiddenHere
          :section="section"
          @why="askWhy"
        />
      </template>
    </RehearsalFrame>
  </section>
</template>

<style scoped>
.rehearsal {
  min-height: 0;
  height: 100%;
}
</style>
