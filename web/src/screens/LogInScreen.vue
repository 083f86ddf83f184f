<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import RelationGlyph from '@/components/RelationGlyph.vue'
import { useRequest } from '@/composables/useRequest'
import { ApiError } from '@/api/client'
import DigitsField from '@/features/session/DigitsField.vue'
import { useSession } from '@/features/session/store'

const session = useSession()
const router = useRouter()
const route = useRoute()
const username = ref('')
const password = ref('')
const name = ref('')
const request = useRequest('The server does not answer. Is it running?')
const { trouble, busy } = request
const first = computed(() => session.needsSetup)
const word = ref('')
const digits = ref('')
/** Whether the account has said that it has a second factor. */
const asksDigits = ref(false)

async function go(): Promise<void> {
  await request.run(async () => {
    if (first.value) await session.setUp(username.value, password.value, name.value, word.value)
    else
      await session.logIn(username.value, password.value, digits.value).catch((found: unknown) => {
        asksDigits.value ||= found instanceof ApiError && found.code === 'second-factor'
        throw found
      })
    const next =
      typeof route.query.next === 'string' && route.query.next.startsWith('/') ? route.query.next : session.home
    await router.push(next)
  })
}
</script>

<template>
  <main class="door">
    <form class="entry" @submit.prevent="go">
      <div class="mark" aria-hidden="true">
        <RelationGlyph
          v-for="each in ['holds', 'widens', 'settles'] as const"
          :key="each"
          :relation="each"
          :size="44"
        />
      </div>
      <h1>Uchuu</h1>
      <p class="muted">
        {{ first ? 'Nobody works here yet. Make the first account.' : 'Every line verified as it is written.' }}
      </p>
      <label v-if="first"><span>Your name</span><input v-model="name" autocomplete="name" maxlength="150" /></label>
      <label
        ><span>Log-in name</span><input v-model="username" autocomplete="username" required maxlength="150" autofocus
      /></label>
      <label>
        <span>Password</span>
        <input
          v-model="password"
          type="password"
          :autocomplete="first ? 'new-password' : 'current-password'"
          required
          maxlength="200"
        />
      </label>
      <DigitsField v-if="asksDigits" v-model="digits" />
      <label v-if="first">
        <span>The word that ./uchuu start has printed</span>
        <input v-model="word" autocomplete="off" autocapitalize="none" required maxlength="40" />
      </label>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <el-button type="primary" native-type="submit" size="large" :loading="busy">{{
        first ? 'Make the account' : 'Log in'
      }}</el-button>
    </form>
  </main>
</template>

<style scoped>
.door {
  min-height: 100%;
  display: grid;
  place-items: center;
  padding: 24px;
}
form {
  width: 320px;
}
.mark {
  display: flex;
  gap: 4px;
}
h1 {
  font-size: 34px;
  line-height: 1;
}
</style>
