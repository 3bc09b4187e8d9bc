<template>
  <section v-if="room" class="card" aria-label="On a tablet">
    <p class="eyebrow">On a tablet</p>
    <div v-if="address" class="found">
      <QrCode :text="address" :label="`Code for a camera: ${address}`" />
      <div>
        <p>
          In the same network, hold its camera before this code, or type
          <strong class="address">{{ address }}</strong>
        </p>
        <p v-if="!isSecure" class="heed">
          Over plain HTTP a tablet cannot listen, and passwords go in the clear. Ask whoever runs the server
          for HTTPS.
        </p>
        <template v-else-if="room.hasAuthority">
          <p>The first time, the tablet has to learn that this server is yours:</p>
          <ol>
            <li>
              Open <strong class="address">{{ address }}{{ AUTHORITY_PATH }}</strong> and pass the warning
              once.
            </li>
            <li>Install the file in the tablet’s settings, as a trusted certificate.</li>
            <li>Open the address above: no warning comes any more.</li>
          </ol>
          <p class="soft">Only on tablets of your own, and by the rules of your school.</p>
        </template>
      </div>
    </div>
    <p v-else class="soft">
      This server answers its own machine alone. Started with <code>HTTPS=made npm start</code>, it also
      answers tablets in the room, and they may listen.
    </p>
  </section>
</template>

<script setup lang="ts">
import { computed } from 'vue'
import { AUTHORITY_PATH } from '#contracts'
import { call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import QrCode from '../../ui/QrCode.vue'

const room = useLoaded(
  () => '',
  () => call('room.read', {}),
).data

/** A page that came from elsewhere has the address that others use; one of this machine itself asks the server. */
const address = computed(() => {
  const { hostname, origin } = window.location
  const isHere = hostname === 'localhost' || hostname === '[::1]' || hostname.startsWith('127.')
  return isHere ? room.value?.addresses[0] : origin
})
const isSecure = computed(() => address.value?.startsWith('https:') === true)
</script>

<style scoped>
.eyebrow {
  margin-bottom: 10px;
}

.found p {
  margin: 0 0 10px;
}

ol {
  margin: 0 0 10px;
}

.found {
  display: grid;
  grid-template-columns: minmax(140px, 200px) minmax(0, 1fr);
  gap: 20px;
}

.address {
  overflow-wrap: anywhere;
}

ol {
  padding-left: 20px;
}

@media (width <= 560px) {
  .found {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
