// The window of notes, for a second screen: what the presenter wants to say, the page and the next one. It draws nothing by itself.
import { createApp } from 'vue'
import '../styles/app.css'
import { i18n } from '../i18n.ts'
import { useLanguage } from '../shell/use-language.ts'
import { useTheme } from '../shell/use-theme.ts'
import NotesView from './NotesView.vue'

useTheme()
void useLanguage()
  .show()
  .finally(() => createApp(NotesView).use(i18n).mount('#notes'))
