<template>
  <main>
    <form class="card" @submit.prevent="submit">
      <h1>Jadefell</h1>
      <p class="soft">From a measured string to a judged hand.</p>
      <template v-if="step === 'code'">
        <p>The password is right. Now the six figures that your phone shows, or a spare code.</p>
        <label>
          <span>Code</span>
          <ElInput
            ref="codeField"
            v-model="code"
            inputmode="numeric"
            autocomplete="one-time-code"
            size="large"
            maxlength="20"
          />
        </label>
      </template>
      <template v-else>
        <label>
          <span>E-mail</span>
          <ElInput ref="first" v-model="email" type="email" autocomplete="username" size="large" />
        </label>
        <label v-if="step === 'key'">
          <span>The key that an owner of your studio gave you</span>
          <ElInput v-model="key" autocomplete="off" size="large" maxlength="40" />
        </label>
        <label>
          <span>{{ step === 'key' ? 'A password of your own' : 'Password' }}</span>
          <ElInput
            ref="passwordField"
            v-model="password"
            type="password"
            :autocomplete="step === 'key' ? 'new-password' : 'current-password'"
            size="large"
            show-password
          />
          <span v-if="step === 'key'" class="soft hint"
            >At least {{ SHORTEST_PASSWORD }} characters: a few words are easy to keep.</span
          >
        </label>
      </template>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <ElButton
        :type="session.demo ? 'default' : 'primary'"
        size="large"
        native-type="submit"
        :loading="busy"
        >{{ step === 'key' ? 'Choose it and come in' : 'Sign in' }}</ElButton
      >
      <button v-if="step === 'password'" type="button" class="word-button" @click="step = 'key'">
        I have a key from my studio
      </button>
      <button v-else type="button" class="word-button" @click="again">Back to the password</button>
      <div v-if="session.demo && step === 'password'" class="demo">
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
import { nextTick, onMounted, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { SHORTEST_PASSWORD } from '#contracts'
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
/** What is asked for: a password, then perhaps a code; or a key with the password to be. */
const step = ref<'password' | 'code' | 'key'>('password')
const code = ref('')
const key = ref('')
const codeField = ref<InputInstance>()
const passwordField = ref<InputInstance>()

function again() {
  step.value = 'password'
  fault.value = ''
}

/** A link with a key brings it behind the #: it is taken out of the address at once, where others could read it. */
function takeKey() {
  const given = new URLSearchParams(route.hash.slice(1))
  if (!given.get('key')) return
  email.value = given.get('email') ?? ''
  key.value = given.get('key') ?? ''
  step.value = 'key'
  void router.replace({ hash: '', query: route.query })
}

onMounted(async () => {
  takeKey()
  await nextTick()
  ;(step.value === 'key' ? passwordField : first).value?.focus()
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
    if (step.value === 'key') await session.useKey(email.value, key.value, password.value)
    else await session.signIn(email.value, password.value, step.value === 'code' ? code.value : undefined)
    const { next } = route.query
    await router.replace(typeof next === 'string' && /^\/(?!\/)/.test(next) ? next : '/')
  } catch (error) {
    if (error instanceof ApiProblem && error.code === 'code_needed') await askForCode()
    else fault.value = wordsFor(error)
  } finally {
    busy.value = false
  }
}

async function askForCode() {
  step.value = 'code'
  code.value = ''
  await nextTick()
  codeField.value?.focus()
}

function wordsFor(error: unknown): string {
  if (!(error instanceof ApiProblem)) throw error
  if (error.code === 'unreachable') return 'The server is not reached. Is Jadefell running?'
  return (
    error.field('email') ??
    error.field('key') ??
    error.field('password') ??
    `${error.problem?.title}. ${error.message}`
  )
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

label .hint {
  font-weight: 400;
  font-size: 14.5px;
}

.word-button {
  justify-self: start;
}

label {
  display: grid;
  gap: 4px;
  font-weight: 600;
}
</style>
