<script setup lang="ts">
/* Devices in the network: switched on and off, paired with a code, put out. */
import { computed, onMounted, onScopeDispose, ref, shallowRef } from 'vue'
import Button from 'primevue/button'
import TickBox from '../shell/TickBox.vue'
import { endPairing, pair, putOut, readNetwork, setNetwork, type State } from './network'

const state = shallowRef<State>()
const trouble = ref('')
async function does(what: Promise<State>) {
  try {
    state.value = await what
    trouble.value = ''
  } catch (e) {
    trouble.value = e instanceof Error ? e.message : String(e)
  }
}
onMounted(() => void does(readNetwork()))
/* Who came, and how long a code is good, changes by itself. */
const now = ref(Date.now())
let looked = 0
const timer = setInterval(() => {
  now.value = Date.now()
  if (state.value?.on && now.value - looked > 1900) {
    looked = now.value
    void does(readNetwork())
  }
}, 500)
onScopeDispose(() => clearInterval(timer))

const on = computed({ get: () => !!state.value?.on, set: (v) => void does(setNetwork(v, [])) })
const listened = computed(() => state.value?.addresses.filter((a) => a.url) ?? [])
const left = computed(() => Math.max(0, Math.ceil((Date.parse(state.value?.codeUntil ?? '') - now.value) / 1000)))
/** One address is in or out; where all are in they need no names. */
function turn(address: string) {
  const all = state.value!.addresses
  const open = all.filter((a) => (a.address === address ? !a.url : !!a.url)).map((a) => a.address)
  if (open.length) void does(setNetwork(true, open.length === all.filter((a) => a.here).length ? [] : open))
}
const day = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })
const ago = (at: string) => {
  const minutes = Math.floor((now.value - Date.parse(at)) / 60000)
  return minutes < 2 ? 'now' : minutes < 120 ? `${minutes} minutes ago` : day.format(new Date(at))
}
</script>

<template>
  <div class="network">
    <p>
      A phone or a tablet on the music stand shows what the laptop plays, in time with it, and leads it by a press. It
      comes in over your own network alone, and only after it was paired here.
    </p>
    <TickBox v-model="on">let paired devices in</TickBox>
    <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
    <template v-if="state?.on">
      <p v-if="state.trouble" class="trouble" role="status">{{ state.trouble }}</p>
      <p v-if="state.told" class="told-here" role="status">{{ state.told }}</p>
      <fieldset v-if="state.addresses.length > 1" class="addresses">
        <legend>Addresses of this machine</legend>
        <TickBox
          v-for="a in state.addresses"
          :key="a.address"
          :model-value="!!a.url"
          @update:model-value="turn(a.address)"
          >{{ a.address }}{{ a.here ? '' : ', not there now' }}</TickBox
        >
      </fieldset>
      <div v-if="state.code" class="pairing">
        <p>
          Open the address on the device and type the code, or point its camera at the picture:
          <b class="code" :aria-label="state.code.split('').join(' ')"
            >{{ state.code.slice(0, 4) }} {{ state.code.slice(4) }}</b
          >
          <small>good once, for {{ left }} s more</small>
        </p>
        <figure v-for="a in listened" :key="a.address">
          <svg :viewBox="`0 0 ${a.qr.size} ${a.qr.size}`" role="img" :aria-label="`the way to pair at ${a.address}`">
            <rect width="100%" height="100%" fill="#fff" />
            <path :d="a.qr.path" fill="#000" />
          </svg>
          <figcaption>{{ a.url }}</figcaption>
        </figure>
        <p>
          The device’s browser will warn that nobody vouches for this certificate: that is so for every machine at home,
          and it is this laptop if the SHA-256 fingerprint that the browser shows is
          <code>{{ state.fingerprint }}</code>
        </p>
        <p><Button label="Stop waiting" size="small" variant="outlined" @click="does(endPairing())" /></p>
      </div>
      <p v-else class="do">
        <span v-if="state.over" role="status">{{ state.over }}</span>
        <span v-for="a in listened" :key="a.address" class="at">{{ a.url }}</span>
        <Button label="Pair a device" size="small" :disabled="!listened.length" @click="does(pair())" />
      </p>
      <ul v-if="state.devices.length" aria-label="paired devices">
        <li v-for="d in state.devices" :key="d.id">
          <span
            ><b>{{ d.name }}</b> <small>{{ d.open ? 'here now' : `last here ${ago(d.used)}` }}</small></span
          >
          <Button
            label="Put out"
            size="small"
            variant="outlined"
            :aria-label="`put out ${d.name}`"
            @click="does(putOut(d.id))"
          />
        </li>
      </ul>
      <p v-else>No device is paired.</p>
      <p class="more">
        Backups, restoring, bringing files and changing players stay here at the laptop. A device puts Undaris on its
        home screen only where its browser trusts the certificate; otherwise it is an ordinary page there, and works all
        the same. Switched off, nobody can come; paired devices are let in again when it is switched on.
      </p>
    </template>
  </div>
</template>

<style scoped>
.network {
  display: grid;
  gap: 0.5rem;
}

.pairing {
  display: grid;
  gap: 0.5rem;
  padding: 0.8rem;
  background: var(--lit);
  border-radius: var(--round);
}

.code {
  display: block;
  font: 600 2.5rem/1.2 var(--font-display);
  font-variant-numeric: tabular-nums;
}

figure {
  margin: 0;
}

svg {
  width: min(14rem, 100%);
}

code {
  display: block;
  overflow-wrap: anywhere;
}

.do,
li,
.addresses {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.5rem 1rem;
}

li {
  justify-content: space-between;
  border-top: 1px solid var(--rule);
  padding: 0.3rem 0;
}

.trouble {
  color: var(--danger);
  font-weight: 600;
}

.more,
small {
  color: var(--soft);
}
</style>
