<template>
  <header class="page-head">
    <h1>Account</h1>
    <p v-if="session" class="whose" dir="auto">
      {{ session.user.name }}, {{ session.user.email }} · {{ session.studio.name }}
    </p>
    <div class="actions">
      <ElButton @click="signOut">Sign out</ElButton>
    </div>
  </header>
  <div class="two">
    <div class="column">
      <section class="card" aria-label="Where you are signed in">
        <p class="eyebrow">Where you are signed in</p>
        <SessionList :sessions="own.sessions.value" @end="own.end" />
        <p v-if="others > 0" class="end">
          <ElButton @click="own.endOthers()"
            >End every session but this one<KeyHint of="e" on-button
          /></ElButton>
          <span class="soft">A tablet that was lost, a computer of the school: end it here.</span>
        </p>
        <p v-else class="soft end">Only here.</p>
      </section>
      <TabletCard />
    </div>
    <div class="column">
      <section class="card" aria-label="Password">
        <p class="eyebrow">Password</p>
        <PasswordForm ref="form" @changed="own.reload()" />
      </section>
      <SecondFactorCard ref="factor" />
    </div>
  </div>
</template>

<script setup lang="ts">
import { storeToRefs } from 'pinia'
import { computed, ref } from 'vue'
import PasswordForm from '../features/account/PasswordForm.vue'
import SecondFactorCard from '../features/account/SecondFactorCard.vue'
import SessionList from '../features/account/SessionList.vue'
import TabletCard from '../features/account/TabletCard.vue'
import { useOwnSessions } from '../features/account/useOwnSessions'
import { useSignOut } from '../features/shell/useSignOut'
import { useSession } from '../stores/session'
import { useShortcuts } from '../ui/useShortcuts'
import KeyHint from '../ui/KeyHint.vue'

const { session } = storeToRefs(useSession())
const own = useOwnSessions()
const signOut = useSignOut()
const form = ref<InstanceType<typeof PasswordForm>>()
const factor = ref<InstanceType<typeof SecondFactorCard>>()
const others = computed(() => own.sessions.value?.filter((one) => !one.isThis).length ?? 0)

useShortcuts('Account', [
  { key: 'w', does: 'Change the password', run: () => form.value?.begin() },
  { key: 'f', does: 'The second factor', run: () => factor.value?.begin() },
  { key: 'e', does: 'End every session but this one', run: () => void (others.value > 0 && own.endOthers()) },
])
</script>

<style scoped>
.eyebrow {
  margin-bottom: 8px;
}

.two {
  display: grid;
  grid-template-columns: minmax(0, 1.4fr) minmax(300px, 1fr);
  align-items: start;
  gap: var(--gap);
}

.column {
  display: grid;
  gap: var(--gap);
}

.end {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  margin-top: 14px;
}

@media (width <= 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
