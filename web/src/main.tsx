import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { App } from './App'
import { hello } from './project/server'
import { setFamilies } from './project/families'
import './style.css'

void hello().then((h) => setFamilies(h.families)).catch(() => undefined) // the screens say what is wrong
createRoot(document.getElementById('root')!).render(<StrictMode><App /></StrictMode>)
