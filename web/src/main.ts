import 'vuetify/styles/core'
import './style.css'

import { createPinia } from 'pinia'
import { createApp } from 'vue'

import App from './App.vue'
import { router } from './router'
import { vuetify } from './theme'

createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app')

/** Over https that the phone trusts, the page also opens without a signal; on this machine there is always one. */
const atLaptop = ['127.0.0.1', 'localhost', '[::1]'].includes(location.hostname)
if (!atLaptop && window.isSecureContext && 'serviceWorker' in navigator)
  void navigator.serviceWorker.register('/sw.js').catch(() => undefined)
