<script setup lang="ts">
import { ref } from 'vue'
import { useRequest } from '@/composables/useRequest'
import DigitsField from './DigitsField.vue'
import { useSession } from './store'
import { ApiError } from '@/api/client'

const emit = defineEmits<{ leave: [] }>()
const session = useSession()
const password = ref('')
const field = ref<HTMLInputElement | null>(null)
const request = useRequest('The server does not answer. What stands behind this is kept; try again.')
const { trouble, busy } = request

const digits = ref('')
const asksDigits = ref(false)
const renew = (): Promise<boolean> =>
  request.run(() =>
    session.renew(password.value, digits.value).catch((found: unknown) => {
      asksDigits.value ||= found instanceof ApiError && found.code === 'second-factor'
      throw found
    }),
  )

/** The keys of the screen behind must not act on what is typed here; Tab is left to the dialog. */
function holdBack(event: KeyboardEvent): void {
  if (event.key !== 'Tab') event.stopPropagation()
}
</script>

<template>
  <el-dialog
    :model-value="true"
    title="Your session has ended"
    width="400"
    append-to-body
    align-center
    :show-close="false"
    :close-on-click-modal="false"
    :close-on-press-escape="false"
    @opened="field?.focus()"
  >
    <form class="entry" @submit.prevent="renew" @keydown="holdBack">
      <p>Log in again and go on where you were. What you typed is still there and is saved afterwards.</p>
      <!-- for a browser that keeps passwords: whose this one is -->
      <input
        type="text"
        class="visually-hidden"
        :value="session.teacher?.username"
        autocomplete="username"
        tabindex="-1"
        aria-hidden="true"
        readonly
      />
      <label>
        <span>Password of {{ session.teacher?.username }}</span>
        <input
          ref="field"
          v-model="password"
          type="password"
          autocomplete="current-password"
          required
          maxlength="200"
        />
      </label>
      <DigitsField v-if="asksDigits" v-model="digits" />
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <div class="row">
        <el-button native-type="button" @click="emit('leave')">I am someone else</el-button>
        <el-button type="primary" native-type="submit" :loading="busy">Go on</el-button>
      </div>
    </form>
  </el-dialog>
</template>

<style scoped>
.row {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
