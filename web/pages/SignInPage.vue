<template>
  <main>
    <form class="card" @submit.prevent="submit">
      <h1>Jadefell</h1>
      <p class="soft">From a measured string to a judged hand.</p>
      <label>
        <span>E-mail</span>
        <ElInput ref="first" v-model="email" type="email" autocomplete="username" size="large" />
      </label>
      <label>
        <span>Password</span>
        <ElInput
          v-model="password"
          type="password"
          autocomplete="current-password"
          size="large"
          show-password
        />
      </label>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <ElButton :type="session.demo ? 'default' : 'primary'" size="large" native-type="submit" :loading="busy"
        >Sign in</ElButton
      >
      <div v-if="session.demo" class="demo">
        <ElButton type="primary" size="large" :loading="busy" @click="enterDemo"
          >Look round the demo studio</ElButton
        >
        <p class="soft">A Saturday programme in Port Ellery: all its people and tunes are made up.</p>
      </div>
    </form>
  </main>
</template>

<script setup lang="ts">
import type { InputInstance } from 'element-plus'
import { onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ApiProblem } from '../api/client'
import { useSession } from '../stores/session'

const route = useRoute()
const router = useRouter()
const session = useSession()
const first = ref<InputInstance>()
const email = ref('')
const password = ref('')
const fault = ref('')
const busy = ref(false)

onMounted(() => {
  first.value?.focus()
  // Whether the demo's key hangs there; where the server is away, signing in says so.
  void session.restore({ again: true }).catch(() => undefined)
})

/** The key hangs at the door. */
function enterDemo() {
  if (!session.demo) return
  email.value = session.demo.email
  password.value = session.demo.password
  void submit()
}

async function submit() {
  fault.value = ''
  busy.value = true
  try {
    await session.signIn(email.value, password.value)
    const { next } = route.query
    await router.replace(typeof next === 'string' && /^\/(?!\/)/.test(next) ? next : '/')
  } catch (error) {
    fault.value = wordsFor(error)
  } finally {
    busy.value = false
  }
}

function wordsFor(error: unknown): string {
  if (!(error instanceof ApiProblem)) throw error
  if (error.code === 'unreachable') return 'The server is not reached. Is Jadefell running?'
  return error.field('email') ?? error.field('password') ?? `${error.problem?.title}. ${error.message}`
}
</script>

<style scoped>
main {
  display: grid;
  place-items: center;
  min-height: 100%;
  padding: 20px;
  background: linear-gradient(160deg, var(--rail) 0 38%, var(--paper) 38%);
}

form {
  display: grid;
  gap: 16px;
  width: min(400px, 100%);
  padding: 32px;
  box-shadow: var(--shadow);
}

h1 {
  font-size: 38px;
  font-weight: 600;
  color: var(--jade);
}

.demo {
  display: grid;
  gap: 8px;
  padding-top: 16px;
  border-top: 1px solid var(--line);
  font-size: 15px;
}

label {
  display: grid;
  gap: 4px;
  font-weight: 600;
}
</style>
