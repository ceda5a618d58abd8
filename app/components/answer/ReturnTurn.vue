<script setup lang="ts">
/** Gives a turn back to the one before, with a remark. */
defineProps<{ to: string; busy: boolean }>()
const emit = defineEmits<{ giveBack: [remark: string] }>()
/** What is to be changed; null until somebody wants to give the turn back. */
const remark = ref<string | null>(null)
</script>

<template>
  <div class="return">
    <button
      v-if="remark === null"
      class="text-button"
      @click="remark = ''"
    >
      Give it back to {{ to }} instead
    </button>
    <form
      v-else
      @submit.prevent="emit('giveBack', remark)"
    >
      <label for="remark">What should {{ to }} change?</label>
      <textarea
        id="remark"
        v-model="remark"
        class="field"
        rows="3"
        required
        maxlength="2000"
      />
      <div class="row-flex">
        <button
          class="plain-button"
          :disabled="busy || !remark.trim()"
        >
          Give back</button
        ><button
          type="button"
          class="text-button"
          @click="remark = null"
        >
          Cancel
        </button>
      </div>
    </form>
  </div>
</template>

<style scoped>
.return {
  margin-top: 28px;
  border-top: 1px solid var(--line);
  padding-top: 14px;
}
form {
  display: grid;
  gap: 8px;
}
label {
  font-weight: 600;
}
</style>
