<script setup lang="ts">
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Schema } from '@/api/client'
import TroubleNote from '@/components/TroubleNote.vue'
import PageHeader from '@/features/session/PageHeader.vue'
import { useRequest } from '@/composables/useRequest'
import SecondFactor from '@/features/session/SecondFactor.vue'
import { useSession } from '@/features/session/store'
import RegionalFields from '@/components/RegionalFields.vue'
import { useRegional } from '@/lib/regional'

/** One's own password; who came in with a one-time word chooses one here before anything else. */
const session = useSession()
const router = useRouter()
const request = useRequest('The server does not answer. Try again in a moment.')
const { trouble, busy } = request
const old = ref('')
const fresh = ref('')
const again = ref('')
const done = ref(false)
const writing = useRequest('The server does not answer; nothing was changed.')
const changeRegional = (change: Schema['Regional']) => writing.run(() => session.changeRegional(change), session.take)
const first = computed(() => session.teacher?.new_password ?? false)
const { moment } = useRegional()
const reset = computed(() => session.teacher?.reset ?? null)

async function go(): Promise<void> {
  done.value = false
  const wasFirst = first.value
  await request.run(async () => {
    if (fresh.value !== again.value) throw new Error('The new password is not the same both times.')
    await session.newPassword(old.value, fresh.value)
    old.value = fresh.value = again.value = ''
    done.value = true
    if (wasFirst) await router.push(session.home)
  })
}
</script>

<template>
  <main class="page">
    <PageHeader title="Your account" />
    <p v-if="first" class="why">You came in with a one-time word. Choose a password of your own, and go on.</p>
    <p v-if="reset" class="muted">
      {{ reset.who }} put that word in place of your password on {{ moment(reset.when) }}. If you didn’t ask for it, ask
      why.
    </p>
    <p v-if="!first" class="muted">
      {{ session.teacher?.name }}, log-in name {{ session.teacher?.username }}. Uchuu {{ session.version }}, core
      {{ session.core }}.
    </p>
    <form class="entry" @submit.prevent="go">
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
        <span>{{ first ? 'The one-time word' : 'The password you have now' }}</span>
        <input v-model="old" type="password" autocomplete="current-password" required maxlength="200" autofocus />
      </label>
      <label>
        <span>New password, eight characters or more</span>
        <input v-model="fresh" type="password" autocomplete="new-password" required maxlength="200" />
      </label>
      <label>
        <span>The same once more</span>
        <input v-model="again" type="password" autocomplete="new-password" required maxlength="200" />
      </label>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <p v-if="done" role="status">The new password counts. Your other browsers are logged out.</p>
      <el-button type="primary" native-type="submit" :loading="busy">{{
        first ? 'Choose it and go on' : 'Change the password'
      }}</el-button>
    </form>
    <SecondFactor v-if="!first" />
    <section v-if="!first && session.teacher" aria-label="How numbers and days are written">
      <h2>How you write</h2>
      <p class="muted">
        For new sheets, and for classes that say nothing else. A sheet that is there already stays as its lines are
        written.
      </p>
      <RegionalFields :chosen="session.teacher.regional" @choose="changeRegional" />
      <TroubleNote :request="writing" />
    </section>
  </main>
</template>

<style scoped>
.page {
  max-width: 820px;
  margin: 0 auto;
  padding: 44px 28px;
}
form {
  width: 340px;
  max-width: 100%;
  margin-top: 20px;
}
section {
  margin-top: 30px;
}
h2 {
  font-size: 18px;
}
.why {
  font-size: 17px;
}
</style>
