import { createPinia } from 'pinia'
import { createApp } from 'vue'
import 'vue-sonner/style.css'
import './styles/app.css'
import App from './App.vue'
import { i18n } from './i18n.ts'
import { router } from './router.ts'
import { useLanguage } from './shell/use-language.ts'

// The first view is made once its words are there; without them, in English.
void useLanguage()
  .show()
  .finally(() => createApp(App).use(createPinia()).use(i18n).use(router).mount('#app'))
