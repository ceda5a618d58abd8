<script setup lang="ts">
import type { EarlierTurn } from '#shared/api/answering'

/** Gives the response back to an earlier turn, with a remark and the questions that it is about. */
const props = defineProps<{ turns: readonly EarlierTurn[]; busy: boolean }>()
const emit = defineEmits<{ giveBack: [returning: { remark: string; to: string; pointed: string[] }] }>()
/** What is to be changed; null until somebody wants to give the turn back. */
const remark = ref<string | null>(null)
const chosen = ref(props.turns[0]?.turn ?? '')
const pointed = ref<string[]>([])
const to = computed(() => props.turns.find(t => t.turn === chosen.value) ?? props.turns[0])
watch(chosen, () => {
  pointed.value = []
})
const send = () =>
  emit('giveBack', { remark: remark.value ?? '', to: to.value?.turn ?? '', pointed: pointed.value })
</script>

<template>
  <div
    v-if="to"
    class="return"
  >
    <v-btn
      v-if="remark === null"
      variant="text"
      @click="remark = ''"
    >
      Give it back to {{ turns.length > 1 ? 'an earlier turn' : to.name }} instead
    </v-btn>
    <form
      v-else
      @submit.prevent="send"
    >
      <template v-if="turns.length > 1">
        <label for="return-to">Give it back to</label>
        <v-select
          id="return-to"
          v-model="chosen"
          :items="turns.map(t => ({ value: t.turn, title: t.name }))"
        />
      </template>
      <label for="remark">What should {{ to.name }} change?</label>
      <v-textarea
        id="remark"
        v-model="remark"
        rows="3"
        required
        maxlength="2000"
      />
      <template v-if="to.questions.length > 0">
        <label for="pointed">Which questions is it about? <span class="quiet">optional</span></label>
        <v-select
          id="pointed"
          v-model="pointed"
          multiple
          chips
          :items="to.questions.map(q => ({ value: q.code, title: q.label }))"
        />
      </template>
      <p class="small quiet">What you have filled so far comes back to you, under this same link.</p>
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
label .quiet {
  font-weight: 400;
}
</style>
