<template>
  <button class="account" type="button" popovertarget="account-menu">
    <span class="who" dir="auto">{{ session.session?.user.name }}</span>
    <span aria-hidden="true" class="arrow">▾</span>
  </button>
  <div id="account-menu" ref="menu" popover class="menu" aria-label="Account">
    <p class="soft small" dir="auto">{{ session.session?.studio.name }}</p>
    <RouterLink :to="{ name: 'account' }" @click="close">Account and sessions</RouterLink>
    <RouterLink v-if="session.session?.isOperator" :to="{ name: 'server' }" @click="close"
      >The server</RouterLink
    >
    <button type="button" @click="turn">{{ theme.isDark ? 'Light theme' : 'Dark theme' }}</button>
    <button type="button" @click="signOut">Sign out</button>
  </div>
</template>

<script setup lang="ts">
import { ref } from 'vue'
import { useSession } from '../../stores/session'
import { useTheme } from '../../stores/theme'
import { useSignOut } from './useSignOut'

/** Who is signed in, at every width, and the ways out. The browser's own popover: it closes by Esc and by a press beside it. */
const session = useSession()
const theme = useTheme()
const signOut = useSignOut()
const menu = ref<HTMLElement>()

function close() {
  menu.value?.hidePopover()
}
function turn() {
  theme.toggle()
  close()
}
</script>

<style scoped>
.account {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  width: 100%;
  padding: 9px 20px;
  border: 0;
  background: none;
  color: var(--rail-ink);
  font: inherit;
  text-align: left;
  cursor: pointer;
}

.account:hover {
  background: color-mix(in srgb, var(--rail-lit) 55%, transparent);
}

.who {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.arrow {
  color: var(--rail-soft);
}

.menu {
  inset: auto auto 20px 204px;
  width: 236px;
  padding: 12px 0;
  border: 1px solid var(--line);
  border-radius: 10px;
  background: var(--card);
  color: var(--ink);
  box-shadow: var(--shadow);
}

.menu p {
  padding: 0 18px 8px;
}

.menu a,
.menu button {
  display: block;
  width: 100%;
  padding: 10px 18px;
  border: 0;
  background: none;
  color: var(--ink);
  font: inherit;
  text-align: left;
  text-decoration: none;
  cursor: pointer;
}

.menu a:hover,
.menu button:hover,
.menu a:focus-visible,
.menu button:focus-visible {
  background: var(--jade-wash);
}

.small {
  font-size: 14px;
}

@media (width <= 900px) {
  .account {
    width: auto;
    max-width: 180px;
    padding: 12px 14px;
  }

  .menu {
    inset: 54px 8px auto auto;
  }
}

@media (width <= 560px) {
  .menu {
    inset: auto 8px 8px;
    width: auto;
  }
}
</style>
