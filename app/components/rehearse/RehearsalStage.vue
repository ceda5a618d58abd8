<script setup lang="ts">
import { mdiClose, mdiPlus } from '@mdi/js'
import { MOST_FRAMES, useRehearsalFrames } from '~/composables/rehearse/useRehearsalFrames'
import { useRehearsing } from '~/composables/rehearse/useRehearsing'

/** The rehearsal in full width: devices and parties side by side with the same answers, the walk so far and its reasons at the side. */
const { frames, change, add, remove } = useRehearsalFrames()
const { asked, askWhy, startAfresh } = useRehearsing()
/** Of two, a phone takes what it is wide; else all have the same share. */
const columns = computed(() => {
  const isPair = frames.value.length === 2
  return frames.value
    .map(f => (isPair && f.width === 'phone' ? 'minmax(0, 394px)' : 'minmax(0, 1fr)'))
    .join(' ')
})
</script>

<template>
  <section
    class="rehearse"
    aria-label="Rehearsal"
  >
    <aside
      class="side"
      aria-label="The walk so far"
    >
      <div class="row-flex head">
        <strong>The walk so far</strong>
        <span class="spread" />
        <IconButton
          :icon="mdiPlus"
          name="Add a frame"
          :disabled="frames.length >= MOST_FRAMES"
          @click="add"
        />
        <RehearsalTools @afresh="startAfresh" />
      </div>
      <div class="told">
        <RehearsalReasons v-model:asked="asked" />
        <WalkSoFar @why="askWhy" />
      </div>
    </aside>
    <div
      class="frames"
      :style="{ gridTemplateColumns: columns }"
    >
      <div
        v-for="(f, i) in frames"
        :key="i"
        class="one"
        role="group"
        :aria-label="`Frame ${i + 1}`"
      >
        <RehearsalFrame
          :as="f.as"
          :width="f.width"
          :prefix="`try${i}`"
          to-scale
          @update:as="change(i, { as: $event })"
          @update:width="change(i, { width: $event })"
          @why="askWhy"
        >
          <template
            v-if="frames.length > 1"
            #tools
          >
            <IconButton
              :icon="mdiClose"
              :name="`Close frame ${i + 1}`"
              @click="remove(i)"
            />
          </template>
        </RehearsalFrame>
      </div>
    </div>
  </section>
</template>

<style scoped>
.rehearse {
  height: 100%;
  display: grid;
  grid-template-columns: 280px minmax(0, 1fr);
}
.side {
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--paper);
  border-right: 1px solid var(--line);
}
.head {
  min-height: 40px;
  padding: 0 12px 0 16px;
  border-bottom: 1px solid var(--line);
  flex: none;
}
.told {
  overflow-y: auto;
  padding: 12px 16px 60px;
}
.frames {
  display: grid;
  min-height: 0;
}
.one {
  min-width: 0;
  min-height: 0;
}
.one + .one {
  border-left: 1px solid var(--line);
}
</style>
