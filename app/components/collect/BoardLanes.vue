<script setup lang="ts">
import type { BoardLane } from '#shared/api/board'

/** How many responses are at each turn, one beside the other; one that is pressed is the only one shown. */
const turn = defineModel<string>('turn', { required: true })
defineProps<{ lanes: readonly BoardLane[] }>()
</script>

<template>
  <div
    class="lanes"
    role="group"
    aria-label="Turns"
  >
    <v-btn
      v-for="l in lanes"
      :key="l.turn"
      variant="outlined"
      class="lane"
      :class="{ on: turn === l.turn }"
      :aria-pressed="turn === l.turn"
      @click="turn = turn === l.turn ? '' : l.turn"
    >
      <span
        >{{ l.name }} <strong class="num">{{ l.count }}</strong></span
      >
      <span class="small quiet"
        >oldest since {{ readableDay(l.since)
        }}<template v-if="l.late > 0"
          >, <span class="risk">{{ l.late }} late</span></template
        ></span
      >
    </v-btn>
  </div>
</template>

<style scoped>
.lanes {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.lane {
  padding: 8px 14px;
  min-width: 180px;
  justify-content: start;
}
.lane :deep(.v-btn__content) {
  display: grid;
  gap: 2px;
  justify-items: start;
}
.lane:hover {
  text-decoration: none;
  background: var(--verdigris-wash);
}
.lane.on {
  border: 2px solid var(--verdigris);
}
</style>
