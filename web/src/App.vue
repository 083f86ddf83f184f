<script setup lang="ts">
import { useRouter } from 'vue-router'
import { whenLoggedOut } from '@/api/client'
import LogInAgain from '@/features/session/LogInAgain.vue'
import { useSession } from '@/features/session/store'

const session = useSession()
const router = useRouter()
whenLoggedOut(() => session.askAgain())

async function leave(): Promise<void> {
  session.leave()
  await router.push({ name: 'log-in', query: { next: router.currentRoute.value.fullPath } })
}
</script>

<template>
  <RouterView />
  <LogInAgain v-if="session.ended" @leave="leave" />
</template>
