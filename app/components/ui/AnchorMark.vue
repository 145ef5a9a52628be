<template>
  <svg
    viewBox="0 0 32 32"
    fill="none"
    stroke="currentColor"
    stroke-width="2.4"
    stroke-linecap="round"
    stroke-linejoin="round"
    aria-hidden="true"
  >
    <circle cx="16" cy="6.5" r="3" />
    <path d="M16 9.5V27M11 13.5h10M5.5 18.5c.6 5 5 8.5 10.5 8.5s9.9-3.5 10.5-8.5" />
  </svg>
</template>
