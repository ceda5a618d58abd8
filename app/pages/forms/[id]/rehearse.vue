<template>
  <div class="wide"><RehearsalPane /></div>
</template>

<style scoped>
.wide { height: 100%; max-width: 1100px; margin: 0 auto; }
</style>
