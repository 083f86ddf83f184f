<script setup lang="ts">
import { ref } from 'vue'
import DigitsField from './DigitsField.vue'
import { useSession } from './store'
import type { Schema } from '@/api/client'
import SquareCode from '@/components/SquareCode.vue'
import { useRequest } from '@/composables/useRequest'

/** A second factor for one's own account: offered, confirmed by its digits, taken away by the password. */
const session = useSession()
const request = useRequest('The server does not answer. Try again in a moment.')
const { trouble, busy } = request
const offered = ref<Schema['OfferedFactor'] | null>(null)
const digits = ref('')
const password = ref('')
const taking = ref(false)

const begin = (): Promise<boolean> => request.run(async () => void (offered.value = await session.offerFactor()))
async function confirm(): Promise<void> {
  if (!(await request.run(() => session.confirmFactor(digits.value)))) return
  offered.value = null
  digits.value = ''
}
async function drop(): Promise<void> {
  if (!(await request.run(() => session.dropFactor(password.value)))) return
  taking.value = false
  password.value = ''
}
</script>

<template>
  <section class="factor" aria-labelledby="second-factor">
    <h2 id="second-factor">A second factor</h2>
    <template v-if="session.teacher?.second_factor">
      <p>At every log-in you are asked for six digits of the app on your telephone.</p>
      <el-button v-if="!taking" @click="taking = true">Take it away</el-button>
      <form v-else class="entry" @submit.prevent="drop">
        <label>
          <span>Your password</span>
          <input v-model="password" type="password" autocomplete="current-password" required maxlength="200" />
        </label>
        <el-button native-type="submit" type="danger" :loading="busy">Take the second factor away</el-button>
      </form>
    </template>
    <form v-else-if="offered" class="entry" @submit.prevent="confirm">
      <p>Let the app read this code, or type the key into it. Then type the digits that it shows.</p>
      <SquareCode :rows="offered.code" label="Code for the app" />
      <p class="key">
        <code>{{ offered.key }}</code>
      </p>
      <DigitsField v-model="digits" />
      <el-button native-type="submit" type="primary" :loading="busy">It counts from now on</el-button>
    </form>
    <template v-else>
      <p v-if="session.teacher?.needs_second_factor" class="why">
        Who manages people here needs one. Until it is set up, the page of people stays closed.
      </p>
      <p v-else class="muted">
        Six digits from an app on your telephone, asked for beside the password: who has guessed your password still
        stands outside.
      </p>
      <el-button :loading="busy" @click="begin">Set one up</el-button>
    </template>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </section>
</template>

<style scoped>
.factor {
  margin-top: 36px;
  max-width: 460px;
}
h2 {
  font-size: 18px;
}
.key {
  overflow-wrap: anywhere;
}
.why {
  font-weight: 700;
}
</style>
