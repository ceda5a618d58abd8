<script setup lang="ts">
/** Filling the rest, and the sets of answers kept under a name. */
const emit = defineEmits<{ said: [text: string] }>()
const rehearsal = useRehearsal()
const name = ref('')
function fillRest() {
  const found = rehearsal.fillRest()
  const filled = 'The rest is filled with likely answers.'
  emit('said', found ? filled : 'No complete set of answers was found; look at what is required.')
}
function saveSet() {
  const kept = name.value.trim()
  if (!kept) return
  rehearsal.saveSet(kept)
  emit('said', `Kept as “${kept}”.`)
  name.value = ''
}
</script>

<template>
  <details class="more">
    <summary class="text-button">Answers</summary>
    <div class="menu sheet">
      <button
        class="text-button"
        @click="fillRest"
      >
        Fill the rest
      </button>
      <form
        class="row-flex"
        @submit.prevent="saveSet"
      >
        <input
          v-model="name"
          class="field"
          placeholder="Name of this set"
          aria-label="Name of this set of answers"
          maxlength="80"
        /><button
          class="text-button"
          :disabled="!name.trim()"
        >
          Keep
        </button>
      </form>
      <p
        v-if="rehearsal.sets.length === 0"
        class="small quiet"
      >
        No sets kept yet.
      </p>
      <div
        v-for="s in rehearsal.sets"
        :key="s.name"
        class="row-flex"
      >
        <button
          class="text-button"
          @click="rehearsal.openSet(s.name)"
        >
          {{ s.name }}</button><span class="spread" /><button
          class="text-button"
          :aria-label="`Remove the set ${s.name}`"
          @click="rehearsal.removeSet(s.name)"
        >
          ×
        </button>
      </div>
    </div>
  </details>
</template>

<style scoped>
.more {
  position: relative;
}
.more summary {
  list-style: none;
  cursor: pointer;
  white-space: nowrap;
}
.menu {
  position: absolute;
  right: 0;
  z-index: 25;
  width: 260px;
  padding: 12px;
  display: grid;
  gap: 6px;
  box-shadow: 0 6px 18px rgb(0 0 0 / 16%);
}
</style>
