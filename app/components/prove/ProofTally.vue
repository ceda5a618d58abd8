<script setup lang="ts">
/** What was decided, and how. */
const findings = useFindings()
const tally = computed(() => findings.verdict?.tally)
</script>

<template>
  <h2>What was decided</h2>
  <template v-if="tally">
    <p>{{ counted(tally.rules, 'rule') }} read</p>
    <p class="proven">✓ {{ tally.byExample }} shown by an example</p>
    <p class="proven">✓ {{ tally.byProof }} proved impossible</p>
    <p>{{ tally.undecided }} undecided</p>
    <p class="quiet small">in {{ Math.max(1, Math.round(findings.milliseconds)) }} ms, in this browser</p>
  </template>
</template>
