import '@fontsource/public-sans/latin-400.css'
import '@fontsource/public-sans/latin-700.css'
import 'vuetify/styles/core'
import './app/tokens.css'
import './app/base.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './app/App.vue'
import { router } from './app/router'
import { vuetify } from './app/theme'
import { watchVersion } from './shared/version'

createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app')
window.addEventListener('load', () => watchVersion())
