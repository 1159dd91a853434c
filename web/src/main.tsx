import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { App } from './App'
import { hello } from './server/server'
import { setFamilies } from './project/families'
import { getReady } from './project/ready'
import './engine/probe'
import './style.css'

void hello()
  .then((h) => setFamilies(h.families))
  .catch(() => undefined) // the screens say what is wrong
getReady()
// The desk shows its focus to people who use the keyboard, not at every press of the pointer.
window.addEventListener(
  'keydown',
  (e) => {
    if (e.key === 'Tab') document.documentElement.dataset.keys = ''
  },
  true,
)
window.addEventListener(
  'pointerdown',
  () => {
    delete document.documentElement.dataset.keys
  },
  true,
)
createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
)
