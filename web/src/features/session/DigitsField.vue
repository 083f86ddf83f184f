<script setup lang="ts">
/** The six digits that an app on a telephone shows. */
const digits = defineModel<string>({ required: true })
</script>

<template>
  <label>
    <span>The six digits that your app shows for Uchuu</span>
    <input v-model="digits" inputmode="numeric" autocomplete="one-time-code" maxlength="12" required />
  </label>
</template>
