<template>
  <div class="panes">
    <ScriptPane />
    <RehearsalPane />
  </div>
</template>

<style scoped>
.panes { display: grid; grid-template-columns: minmax(0, 1.42fr) minmax(340px, 1fr); height: 100%; }
@media (max-width: 800px) { .panes { grid-template-columns: 1fr; height: auto; } }
</style>
