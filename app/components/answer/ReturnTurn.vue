<script setup lang="ts">
/** Gives a turn back to the one before, with a remark. */
defineProps<{ to: string; busy: boolean }>()
const emit = defineEmits<{ giveBack: [remark: string] }>()
/** What is to be changed; null until somebody wants to give the turn back. */
const remark = ref<string | null>(null)
</script>

<template>
  <div class="return">
    <v-btn
      v-if="remark === null"
      variant="text"
      @click="remark = ''"
    >
      Give it back to {{ to }} instead
    </v-btn>
    <form
      v-else
      @submit.prevent="emit('giveBack', remark)"
    >
      <label for="remark">What should {{ to }} change?</label>
      <v-textarea
        id="remark"
        v-model="remark"
        rows="3"
        required
        maxlength="2000"
      />
      <div class="row-flex">
        <v-btn
          type="submit"
          :disabled="busy || !remark.trim()"
        >
          Give back</v-btn
        ><v-btn
          variant="text"
          @click="remark = null"
        >
          Cancel
        </v-btn>
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
