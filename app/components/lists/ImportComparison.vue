<script setup lang="ts">
import type { Missing } from '#core/lists/difference'
import type { Comparison } from '~/workers/lists.worker'

/** What a table would change of a list, before it does. */
defineProps<{ comparison: Comparison }>()
const missing = defineModel<Missing>('missing', { required: true })
const emit = defineEmits<{ compare: [] }>()
</script>

<template>
  <div>
    <p class="small">
      <strong>{{ comparison.counts.added }} new</strong> ·
      <strong>{{ comparison.counts.changed }} changed</strong> · {{ comparison.counts.same }} as they
      are<template v-if="comparison.counts.clashing > 0">
        ·
        <strong class="risk"
          >{{ comparison.counts.clashing }} with a code that another row’s label had: does the code mean
          something else now?</strong
        ></template
      >
    </p>
    <p
      v-if="comparison.counts.missing > 0"
      class="small"
    >
      {{ comparison.counts.missing }} of the list {{ comparison.counts.missing === 1 ? 'is' : 'are' }} not in
      the file (such as {{ comparison.missing[0]?.label }}):
      <v-select
        v-model="missing"
        aria-label="What becomes of rows that the file does not have"
        :items="[
          { value: 'keep', title: 'keep them as they are' },
          { value: 'retire', title: 'retire them' },
          { value: 'remove', title: 'take them out' },
        ]"
        @update:model-value="emit('compare')"
      />
    </p>
    <ul class="small quiet">
      <li
        v-for="c in comparison.changed.slice(0, 5)"
        :key="c.after.code"
      >
        <code>{{ c.after.code }}</code>:
        {{ c.cells.map(k => `${k} “${c.before[k] ?? ''}” → “${c.after[k] ?? ''}”`).join(', ') }}
      </li>
      <li
        v-for="c in comparison.clashing.slice(0, 5)"
        :key="c.after.code"
        class="risk"
      >
        <code>{{ c.after.code }}</code>: “{{ c.before.label }}” → “{{ c.after.label }}”
      </li>
    </ul>
    <FoldedPart
      v-if="comparison.problems.length > 0"
      class="risk"
      :title="`${comparison.problems.length} ${comparison.problems.length === 1 ? 'thing does' : 'things do'} not fit`"
    >
      <p
        v-for="(p, i) in comparison.problems.slice(0, 50)"
        :key="i"
      >
        Row {{ p.row }}: {{ p.sentence }}
      </p>
    </FoldedPart>
  </div>
</template>

<style scoped>
li {
  margin-left: 18px;
}
</style>
