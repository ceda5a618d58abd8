<template>
  <svg
    viewBox="0 0 24 28"
    width="22"
    height="26"
    aria-hidden="true"
  >
    <path
      fill="currentColor"
      d="M2 1h20v4H2zM2 23h20v4H2z"
    />
    <path
      fill="var(--verdigris)"
      d="M6 6h12v2.6H6zM6 9.4h12V12H6zM6 12.8h12v2.6H6zM6 16.2h12v2.6H6zM6 19.6h12v2.6H6z"
    />
  </svg>
</template>
