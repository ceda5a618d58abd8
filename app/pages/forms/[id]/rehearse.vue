<template>
  <RehearsalStage />
</template>
