<script setup lang="ts">
/** Goes on to another page once what was said could be read; until then it can be stopped. */
const props = defineProps<{ address: string }>()
const SECONDS = 12
const left = ref(SECONDS)
const isStopped = ref(false)
let timer: ReturnType<typeof setInterval> | undefined
function stop() {
  isStopped.value = true
  clearInterval(timer)
}
const go = () => window.location.assign(props.address)
onMounted(() => {
  timer = setInterval(() => {
    left.value -= 1
    if (left.value > 0) return
    stop()
    go()
  }, 1_000)
})
onBeforeUnmount(stop)
</script>

<template>
  <div class="going row-flex">
    <v-btn
      variant="flat"
      color="primary"
      class="big"
      :href="address"
      @click="stop"
    >
      Go on
    </v-btn>
    <template v-if="!isStopped">
      <span
        class="quiet"
        role="timer"
        >The page goes on by itself in {{ left }} s.</span
      >
      <v-btn
        variant="text"
        @click="stop"
      >
        Stay here
      </v-btn>
    </template>
  </div>
</template>

<style scoped>
.going {
  flex-wrap: wrap;
}
.big {
  min-height: 46px;
  padding: 8px 20px;
}
</style>
