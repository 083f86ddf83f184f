<script setup lang="ts">
import type { Request } from '@/composables/useRequest'

/** What went wrong with a request, and the way to ask once more where that may help. */
defineProps<{ request: Request }>()
</script>

<template>
  <p v-if="request.trouble.value" class="trouble" role="alert">
    {{ request.trouble.value }}
    <button v-if="request.again.value" class="plain-button" :disabled="request.busy.value" @click="request.retry()">
      Try again
    </button>
  </p>
</template>

<style scoped>
.trouble {
  color: var(--breaks);
}
.trouble button {
  text-decoration: underline;
}
</style>
