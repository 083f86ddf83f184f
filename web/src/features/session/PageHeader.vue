<script setup lang="ts">
import { useRouter } from 'vue-router'
import { useSession } from './store'
import { useRequest } from '@/composables/useRequest'

/** The top of every screen but the desk: where one is, where one can go, who one is. */
defineProps<{ title: string }>()
const session = useSession()
const router = useRouter()
const request = useRequest('The server does not answer. Try again in a moment.')
const { trouble } = request

const logOut = (): Promise<boolean> =>
  request.run(async () => {
    await session.logOut()
    await router.push('/log-in')
  })
</script>

<template>
  <header class="top">
    <h1>{{ title }}</h1>
    <nav aria-label="Screens">
      <template v-if="session.teacher?.teaches && !session.teacher.new_password">
        <RouterLink to="/">Sheets</RouterLink>
        <RouterLink to="/build">Build a sheet</RouterLink>
        <RouterLink to="/bank">Bank</RouterLink>
        <RouterLink to="/classes">Classes</RouterLink>
        <RouterLink to="/keys">Proof-read a key</RouterLink>
      </template>
      <RouterLink v-if="session.teacher?.manages && !session.teacher.new_password" to="/people">People</RouterLink>
      <RouterLink to="/account" class="own">{{ session.teacher?.name }}</RouterLink>
      <button class="plain-button" @click="logOut">Log out</button>
    </nav>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
  </header>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 6px 24px;
  margin-bottom: 18px;
}
h1 {
  font-size: 28px;
}
nav {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 16px;
}
a {
  color: var(--settles);
  padding: 4px 0;
}
a.router-link-exact-active {
  color: var(--ink);
  text-decoration: none;
  font-weight: 700;
}
.own {
  color: var(--muted);
}
.trouble {
  flex-basis: 100%;
  color: var(--breaks);
}
</style>
