<script setup lang="ts">
/** Finds forms among many: by words, by tags, and in the archive. */
defineProps<{ tags: readonly string[]; archived: number }>()
const words = defineModel<string>('words', { required: true })
const tag = defineModel<string | null>('tag', { required: true })
const inArchive = defineModel<boolean>('inArchive', { required: true })
</script>

<template>
  <div
    class="row-flex filter"
    role="search"
  >
    <v-text-field
      v-model="words"
      class="words"
      type="search"
      placeholder="Find a form by title, code or tag"
      aria-label="Find a form"
      clearable
      @click:clear="words = ''"
    />
    <v-chip-group
      v-if="tags.length > 0"
      v-model="tag"
      aria-label="Tags"
    >
      <v-chip
        v-for="t in tags"
        :key="t"
        tag="button"
        :value="t"
        filter
        >{{ t }}</v-chip
      >
    </v-chip-group>
    <span class="spread" />
    <v-btn
      v-if="archived > 0 || inArchive"
      variant="text"
      :aria-pressed="inArchive"
      @click="inArchive = !inArchive"
    >
      {{ inArchive ? 'Back to the forms' : `Archive (${archived})` }}
    </v-btn>
  </div>
</template>

<style scoped>
.filter {
  flex-wrap: wrap;
}
.words {
  flex: 0 1 320px;
}
</style>
