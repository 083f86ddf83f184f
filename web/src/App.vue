<script setup lang="ts">
import { watch } from 'vue'
import { useRouter } from 'vue-router'
import UnsentNote from '@/components/UnsentNote.vue'
import { useOutbox } from '@/lib/outbox'
import { whenLoggedOut } from '@/api/client'
import LogInAgain from '@/features/session/LogInAgain.vue'
import { useSession } from '@/features/session/store'

const session = useSession()
const outbox = useOutbox()
watch(
  () => session.teacher?.username ?? '',
  (who) => outbox.begin(who),
  { immediate: true },
)
const router = useRouter()
whenLoggedOut(() => session.askAgain())

async function leave(): Promise<void> {
  session.leave()
  await router.push({ name: 'log-in', query: { next: router.currentRoute.value.fullPath } })
}
</script>

<template>
  <RouterView />
  <UnsentNote />
  <LogInAgain v-if="session.ended" @leave="leave" />
</template>
