<script setup lang="ts">
// Small drawings of what is seen at each step of loading the extension.
defineProps<{ step: 1 | 2 | 3 }>()
</script>

<template>
  <svg viewBox="0 0 112 70" class="w-full rounded-md" aria-hidden="true">
    <rect width="112" height="70" rx="5" fill="var(--sunk)" />
    <template v-if="step === 1">
      <rect x="8" y="9" width="96" height="13" rx="6.5" fill="var(--raised)" stroke="var(--line)" />
      <text x="16" y="18.5" font-size="7.4" fill="var(--ink)" style="font-family: var(--font-num)">chrome://extensions</text>
      <text x="44" y="45" font-size="7.4" text-anchor="end" fill="var(--soft)">Developer</text>
      <text x="44" y="54" font-size="7.4" text-anchor="end" fill="var(--soft)">mode</text>
      <rect x="52" y="39" width="30" height="16" rx="8" fill="var(--green)" />
      <circle cx="74" cy="47" r="6" fill="#fff" />
      <path d="m88 62-3.5-9 9 3.5-4 1.8z" fill="var(--ink)" />
    </template>
    <template v-else-if="step === 2">
      <rect x="10" y="8" width="58" height="14" rx="7" fill="var(--raised)" stroke="var(--brass)" stroke-width="1.5" />
      <text x="39" y="17.4" font-size="6.4" text-anchor="middle" fill="var(--ink)">Load unpacked</text>
      <path d="M26 60V36h14l4 5h24v19z" fill="var(--wash)" stroke="var(--brass)" />
      <text x="47" y="54" font-size="7.4" text-anchor="middle" fill="var(--ink)" style="font-family: var(--font-num)">extension</text>
      <path d="M78 40v13m0 0-5-5m5 5 5-5" fill="none" stroke="var(--brass)" stroke-width="2" transform="rotate(90 78 47)" />
    </template>
    <template v-else>
      <rect x="8" y="8" width="66" height="42" rx="4" fill="#2a2a2a" />
      <circle cx="41" cy="24" r="8" fill="#e7b08c" />
      <path d="M24 50c0-14 34-14 34 0z" fill="#d9a02f" />
      <rect x="40" y="36" width="66" height="27" rx="4" fill="var(--raised)" stroke="var(--line)" />
      <rect x="42" y="48.5" width="62" height="12" rx="3" fill="var(--wash)" />
      <text x="45" y="45.5" font-size="5.8" fill="var(--soft)">Built-in camera</text>
      <text x="45" y="57" font-size="5.8" font-weight="600" fill="var(--ink)">Green Room Camera</text>
    </template>
  </svg>
</template>
