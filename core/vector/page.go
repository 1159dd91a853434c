package vector

import (
	"crypto/sha256"
	"encoding/base64"
	"strings"
)

// player starts and stops what is moved, and lets people who asked for little motion see it all the same.
const player = `
const root = document.documentElement, piece = document.querySelector('svg'), button = document.querySelector('button')
const little = matchMedia('(prefers-reduced-motion: reduce)')
let runs = !little.matches && !root.hasAttribute('data-waits')
const show = () => {
  root.dataset.moves = runs ? 'runs' : root.dataset.moves ? 'stands' : ''
  button.textContent = runs ? 'Pause' : 'Play'
}
const turn = () => {
  if (!runs && piece.getAnimations({ subtree: true }).every(a => a.playState === 'finished')) {
    root.dataset.moves = ''
    piece.getBoundingClientRect()
  }
  runs = !runs
  show()
}
button.onclick = turn
piece.onclick = turn
little.onchange = () => { if (little.matches) { runs = false; show() } }
show()
`

const pageStyle = `
html{height:100%;background:transparent}
body{margin:0;height:100%;display:grid;place-items:center}
svg{display:block;max-width:100%;max-height:100vh;height:auto;cursor:pointer}
button{position:fixed;right:12px;bottom:12px;min-width:64px;height:32px;border:0;border-radius:6px;background:#10302e;color:#eaf2ec;font:600 13px system-ui,sans-serif;cursor:pointer}
html[data-moves=runs]:not(:hover) button:not(:focus-visible){opacity:0}
html:not([data-moves=runs]) svg *{animation-play-state:paused!important}
html[data-moves=''] svg *{animation:none!important}
`

// Page is a piece as one web page that asks nothing of anybody: it plays and stands still by a button, a press or a key; where waits is true it stands still
// until then, as it does for people who ask for little motion, who are shown its still.
func Page(p *Piece, title string, waits bool) string {
	hash := sha256.Sum256([]byte(player))
	var b strings.Builder
	b.WriteString("<!doctype html>\n<html lang=\"en\"")
	if waits {
		b.WriteString(" data-waits")
	}
	b.WriteString(" data-moves=\"\">\n<head>\n<meta charset=\"utf-8\">\n<meta name=\"viewport\" content=\"width=device-width\">\n")
	b.WriteString(`<meta http-equiv="Content-Security-Policy" content="default-src 'none'; img-src data:; style-src 'unsafe-inline'; script-src 'sha256-` + base64.StdEncoding.EncodeToString(hash[:]) + `'">` + "\n")
	if title == "" {
		title = "Film"
	}
	b.WriteString("<title>" + escaped(title) + "</title>\n<style>" + pageStyle + "</style>\n</head>\n<body>\n")
	// What stands still for people who ask for little motion is started by the page itself here.
	b.WriteString(strings.Replace(p.SVG, p.still, "", 1))
	b.WriteString("<button type=\"button\">Play</button>\n<script>" + player + "</script>\n</body>\n</html>\n")
	return b.String()
}
