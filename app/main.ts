import { createPinia } from 'pinia'
import { createApp } from 'vue'
import 'vue-sonner/style.css'
import './styles/app.css'
import App from './App.vue'
import { i18n } from './i18n.ts'
import { router } from './router.ts'

createApp(App).use(createPinia()).use(i18n).use(router).mount('#app')
