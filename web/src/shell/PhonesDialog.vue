<script setup lang="ts">
import { computed, onBeforeUnmount, ref } from 'vue'

import { api, ask, type HereOut } from '../api/client'
import { whenShown } from '../stage/whenShown'

/** Opens Level Run to phones on this network: a code for each, a list of them, a key taken away at a tap. */
const shown = defineModel<boolean>({ required: true })
const here = ref<HereOut | null>(null)
const wrong = ref('')
const stamp = ref(0)
let timer = 0

type Found = { data?: unknown; error?: unknown; response?: Response }
async function take(call: Promise<Found>) {
  const { data, problem } = await ask(call as Promise<{ data?: HereOut }>)
  wrong.value = problem?.detail ?? ''
  if (!data) return
  if (data.code !== here.value?.code) stamp.value++
  here.value = data
}
const load = () => take(api.GET('/api/here'))
whenShown(shown, () => {
  void load()
  clearInterval(timer)
  timer = window.setInterval(() => (shown.value ? void load() : clearInterval(timer)), 4000)
})
onBeforeUnmount(() => clearInterval(timer))
const open = () => take(api.POST('/api/here/open'))
const close = () => take(api.POST('/api/here/close'))
const more = () => take(api.POST('/api/here/code'))
const revoke = (phone_id: string) =>
  take(api.DELETE('/api/here/phones/{phone_id}', { params: { path: { phone_id } } }))
const minutes = computed(() => Math.ceil((here.value?.good_s ?? 0) / 60))
const day = (at: string) => at.slice(0, 16).replace('T', ' ')
</script>

<template>
  <v-dialog v-model="shown" aria-label="Phones on this network" max-width="560">
    <v-card class="pa-5">
      <h2>Phones on this network</h2>
      <template v-if="here">
        <template v-if="here.open">
          <p class="num">
            Open at <b data-testid="here-url">{{ here.url }}</b>
          </p>
          <div v-if="here.code" class="code">
            <img
              :src="`/api/here/code.svg?${stamp}`"
              alt="Code to point a phone at"
              width="190"
              height="190"
            />
            <div>
              <p>Point the phone's camera here, or open the address and type</p>
              <p class="letters num" data-testid="here-code">{{ here.code }}</p>
              <p class="mute num">
                for one phone, good for {{ minutes }} {{ minutes === 1 ? 'minute' : 'minutes' }}
              </p>
            </div>
          </div>
          <v-btn v-else size="small" variant="flat" color="ink" @click="more"
            >A code for one phone more</v-btn
          >
          <p class="caution">{{ here.caution }}</p>
          <p class="mute">
            Ticks and photos that are made while the signal is gone wait on the phone while its page stays
            open.
            {{
              here.encrypted
                ? 'With a certificate that the phone trusts, the page also opens without a signal.'
                : 'Opening the page without a signal needs a certificate that the phone trusts (--cert).'
            }}
          </p>
        </template>
        <template v-else>
          <p>
            Only this machine is let in now. Opened, each phone is paired once by a code from this screen, and
            has a key of its own.
          </p>
          <p class="caution">{{ here.caution }}</p>
        </template>
        <table v-if="here.phones.length" class="num">
          <tbody>
            <tr v-for="phone in here.phones" :key="phone.id" :data-phone="phone.name">
              <td>
                <b>{{ phone.name }}</b>
              </td>
              <td class="mute">paired {{ day(phone.made_at) }}, seen {{ day(phone.seen_at) }}</td>
              <td>
                <span v-if="phone.revoked" class="mute">key taken away</span>
                <v-btn v-else size="small" variant="outlined" @click="revoke(phone.id)"
                  >Take its key away</v-btn
                >
              </td>
            </tr>
          </tbody>
        </table>
      </template>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <div class="d-flex ga-2 justify-end mt-3">
        <v-btn v-if="here?.open" variant="outlined" @click="close">Shut it</v-btn>
        <v-btn v-else-if="here" variant="outlined" data-testid="here-open" @click="open"
          >Open to this network</v-btn
        >
        <v-btn variant="flat" color="ink" @click="shown = false">Done</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
p {
  margin: 6px 0;
}
.code {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
}
.code img {
  background: #fff;
}
.code div {
  flex: 1;
  min-width: 180px;
}
.letters {
  font-size: 34px;
  font-weight: 600;
  letter-spacing: 0.16em;
}
.caution {
  border-left: 5px solid var(--check-mark);
  background: var(--check-wash);
  padding: 6px 10px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
td {
  border-top: 1px solid var(--rule);
  padding: 5px 8px 5px 0;
}
.wrong {
  color: var(--stop);
  font-weight: 600;
}
</style>
