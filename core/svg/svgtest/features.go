// Package svgtest holds drawings that readers of SVG are tried on: one a feature, and the files of icon sets.
package svgtest

// Features are drawings of 100 by 100, one a feature, by its name. None of them has anything that is lost.
func Features() map[string]string {
	out := map[string]string{}
	for name, inside := range features {
		out[name] = `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" viewBox="0 0 100 100" width="100" height="100">` + inside + `</svg>`
	}
	return out
}

var features = map[string]string{
	"shapes":          `<rect x="5" y="5" width="30" height="20" fill="teal"/><rect x="40" y="5" width="40" height="30" rx="12" ry="6" fill="#d8573a"/><circle cx="25" cy="60" r="15"/><ellipse cx="70" cy="60" rx="20" ry="10" fill="navy"/><polygon points="10,95 30,80 50,95" fill="olive"/><polyline points="60,95 75,80 90,95" fill="none" stroke="purple" stroke-width="3"/><line x1="5" y1="45" x2="95" y2="42" stroke="gray" stroke-width="2"/>`,
	"path commands":   `<path fill="#3f7f86" d="M10 10h30v20H10zm50 0c10-10 30 0 30 20s-10 10-20 10T60 30zM20 60a15 10 30 1 1 20 20L20 90Q5 80 20 60zM60.5.5"/><path d="M60 60 s10-20 30 0 0 30-30 30z" fill="#d8573a"/>`,
	"compact numbers": `<path d="M10-.5.5 20l1e1.5.5.5a5 5 0 0120 10.5 5 5 0 11-20-5z" transform="translate(10,20)"/>`,
	"groups":          `<g transform="translate(20 10) rotate(20)" fill="#d8573a"><g transform="scale(1.5,0.8)"><rect width="30" height="20"/></g><circle cx="40" cy="50" r="12" fill="#17403c"/></g><rect x="60" y="60" width="20" height="20" transform="skewX(20)" fill="#e0a03a"/>`,
	"a style":         `<style>.a{fill:#d8573a}#b,g > .c{fill:rgb(20,120,90)}g rect.d{fill:hsl(210 60% 40%) !important}circle{fill:orange}</style><rect class="a" width="40" height="40"/><rect id="b" x="50" width="40" height="40"/><g><circle class="c" cx="20" cy="70" r="18"/><rect class="d" style="fill:red" x="50" y="50" width="40" height="40"/></g>`,
	"inheritance":     `<g fill="currentColor" color="#b5402a" stroke="#17403c" stroke-width="4"><rect x="10" y="10" width="30" height="30"/><rect x="55" y="10" width="30" height="30" color="teal"/><g fill="inherit" stroke="none"><circle cx="30" cy="70" r="20"/></g></g>`,
	"strokes":         `<g fill="none" stroke="#17403c"><path d="M10 20L40 10 60 30" stroke-width="8" stroke-linecap="round" stroke-linejoin="round"/><path d="M10 50L40 40 60 60" stroke-width="8" stroke-linecap="square" stroke-linejoin="bevel"/><path d="M10 80h80" stroke-width="5" stroke-dasharray="12 5 3" stroke-dashoffset="4"/><path d="M70 10L90 20 70 26" stroke-width="5" stroke-miterlimit="1.5"/></g>`,
	"pressed strokes": `<ellipse cx="10" cy="20" rx="7" ry="12" transform="scale(5,2)" fill="#f3dca6" stroke="#d8573a" stroke-width="3"/>`,
	"even-odd":        `<path fill-rule="evenodd" d="M50 5L21 95 97 39H3L79 95Z" fill="#e0a03a" stroke="#17403c" stroke-width="2"/>`,
	"gradients":       `<defs><linearGradient id="a" x1="0" x2="1" y2="0.5"><stop offset="0" stop-color="#d8573a"/><stop offset="60%" stop-color="#f3dca6" stop-opacity="0.6"/><stop offset="1" stop-color="teal"/></linearGradient><linearGradient id="b" href="#a" gradientUnits="userSpaceOnUse" x1="10" y1="60" x2="50" y2="90" gradientTransform="rotate(10)"/><radialGradient id="c" cx="0.4" cy="0.4" r="0.6" fx="0.3" fy="0.3"><stop stop-color="white"/><stop offset="1" stop-color="#17403c"/></radialGradient></defs><rect x="5" y="5" width="40" height="40" fill="url(#a)"/><rect x="5" y="55" width="45" height="40" fill="url(#b)"/><circle cx="75" cy="50" r="22" fill="url(#c)"/>`,
	"use":             `<defs><g id="x"><rect width="20" height="20"/><circle cx="20" cy="20" r="8" fill="orange"/></g><symbol id="s" viewBox="0 0 10 10"><path d="M0 0h10L5 10z"/></symbol></defs><use href="#x" x="5" y="5" fill="teal"/><use href="#x" x="5" y="50" fill="#d8573a" transform="rotate(-10)"/><use href="#s" x="50" y="10" width="40" height="30"/><use href="#s" x="50" y="55" width="30" height="40" fill="purple"/>`,
	"opacity":         `<rect width="60" height="60" fill="#d8573a" fill-opacity="0.5"/><g opacity="0.6"><rect x="30" y="30" width="50" height="50" fill="teal"/><circle cx="75" cy="75" r="20" fill="navy"/></g>`,
	"nested":          `<svg x="10" y="10" width="40" height="80" viewBox="0 0 10 10"><rect width="10" height="10" fill="teal"/></svg><svg x="55" y="10" width="40" height="80" viewBox="0 0 10 10" preserveAspectRatio="none"><circle cx="5" cy="5" r="5" fill="#d8573a"/></svg>`,
	"clip paths":      `<clipPath id="k"><circle cx="40" cy="40" r="30"/></clipPath><clipPath id="e" clipPathUnits="objectBoundingBox"><rect x="0.2" y="0.2" width="0.5" height="0.6"/></clipPath><g clip-path="url(#k)"><rect width="60" height="60" fill="#d8573a"/><rect x="30" y="30" width="60" height="60" fill="teal"/></g><rect x="60" y="60" width="36" height="36" clip-path="url(#e)" fill="navy"/>`,
	"masks":           `<mask id="m"><rect x="20" y="20" width="60" height="40" rx="10" fill="white"/></mask><g mask="url(#m)"><rect width="100" height="100" fill="#3f7f86"/><circle cx="50" cy="50" r="30" fill="#f3dca6"/></g>`,
	"units":           `<rect x="10%" y="0.1in" width="1cm" height="10mm" fill="teal"/><circle cx="50%" cy="70%" r="10pt" fill="#d8573a" stroke="#000" stroke-width="0.5em" font-size="4"/>`,
	"hidden":          `<g visibility="hidden"><rect width="50" height="50"/><circle cx="60" cy="60" r="20" visibility="visible" fill="teal"/></g><g display="none"><rect width="100" height="100" fill="red"/></g>`,
	"flat gradients":  `<radialGradient id="a"><stop stop-color="#fff3d0"/><stop offset="0.6" stop-color="#e0a03a"/><stop offset="1" stop-color="#17403c"/></radialGradient><radialGradient id="b" href="#a" gradientUnits="userSpaceOnUse" cx="30" cy="70" r="20" fx="24" fy="66" gradientTransform="rotate(20 30 70) translate(0 35) scale(1 0.5)"/><rect x="5" y="5" width="90" height="35" fill="url(#a)"/><rect x="5" y="50" width="45" height="45" fill="url(#b)"/><ellipse cx="78" cy="72" rx="14" ry="24" fill="url(#a)"/>`,
	"gradients again": `<linearGradient id="a" x1="0.2" x2="0.5" y2="0.1" spreadMethod="repeat"><stop stop-color="#d8573a"/><stop offset="1" stop-color="#f3dca6"/></linearGradient><linearGradient id="b" href="#a" spreadMethod="reflect"/><radialGradient id="c" r="0.2" spreadMethod="reflect"><stop stop-color="teal"/><stop offset="1" stop-color="white"/></radialGradient><rect x="5" y="5" width="40" height="40" fill="url(#a)"/><rect x="55" y="5" width="40" height="40" fill="url(#b)"/><rect x="5" y="55" width="40" height="40" fill="url(#c)"/>`,
	"patterns":        `<pattern id="a" x="3" y="2" width="10" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(20)"><rect width="10" height="8" fill="#f3dca6"/><circle cx="4" cy="4" r="3" fill="#d8573a"/><path d="M6 0L14 8" stroke="teal"/></pattern><pattern id="b" width="0.3" height="0.3" viewBox="0 0 10 10"><path d="M0 0h5v5H0z" fill="navy"/></pattern><circle cx="30" cy="30" r="24" fill="url(#a)" stroke="#17403c" stroke-width="2"/><rect x="60" y="10" width="30" height="30" fill="url(#b)"/><path fill-rule="evenodd" d="M50 60h45v36H50zm10 8h20v20H60z" fill="url(#a)" fill-opacity="0.6"/>`,
	"markers":         `<marker id="a" viewBox="0 0 10 10" refX="9" refY="5" markerWidth="6" markerHeight="6" orient="auto-start-reverse"><path d="M0 0L10 5 0 10z" fill="#d8573a"/></marker><marker id="d" markerWidth="4" markerHeight="4" refX="2" refY="2"><circle cx="2" cy="2" r="1.5" fill="teal"/></marker><path d="M15 20C30 0 50 60 85 25" fill="none" stroke="#17403c" stroke-width="2" marker-start="url(#a)" marker-end="url(#a)"/><polyline points="15,60 40,80 60,55 85,85" fill="none" stroke="navy" stroke-width="3" marker-mid="url(#d)" marker-end="url(#d)"/>`,
	"grey masks":      `<linearGradient id="g"><stop stop-color="black"/><stop offset="1" stop-color="white"/></linearGradient><mask id="m"><rect width="100" height="100" fill="white"/><circle cx="40" cy="40" r="20"/><rect x="50" y="50" width="40" height="40" fill="#999"/><path d="M0 90h100" stroke="black" stroke-width="6"/></mask><mask id="n" maskContentUnits="objectBoundingBox"><rect width="1" height="1" fill="url(#g)"/></mask><rect x="5" y="5" width="90" height="60" fill="#3f7f86" mask="url(#m)"/><rect x="5" y="70" width="90" height="25" fill="#d8573a" mask="url(#n)"/>`,
	"clipped clips":   `<clipPath id="a"><rect width="60" height="100"/></clipPath><clipPath id="b" clip-path="url(#a)"><circle cx="50" cy="50" r="40"/></clipPath><rect width="100" height="100" fill="teal" clip-path="url(#b)"/>`,
	"blurs":           `<filter id="f"><feGaussianBlur stdDeviation="3"/></filter><circle cx="50" cy="50" r="25" fill="#d8573a" filter="url(#f)"/>`,
	"shadows":         `<filter id="f" x="-50%" y="-50%" width="200%" height="200%" color-interpolation-filters="sRGB"><feGaussianBlur in="SourceAlpha" stdDeviation="3"/><feOffset dx="4" dy="6" result="o"/><feFlood flood-color="#17403c" flood-opacity="0.6"/><feComposite in2="o" operator="in"/><feMerge><feMergeNode/><feMergeNode in="SourceGraphic"/></feMerge></filter><filter id="h" x="-50%" y="-50%" width="200%" height="200%"><feDropShadow dx="3" dy="3" stdDeviation="2" flood-color="navy"/></filter><rect x="10" y="10" width="40" height="40" fill="#e0a03a" filter="url(#f)"/><circle cx="70" cy="70" r="15" fill="#d8573a" filter="url(#h)"/>`,
	"other colours":   `<filter id="f" color-interpolation-filters="sRGB"><feColorMatrix type="saturate" values="0.2"/></filter><filter id="h"><feColorMatrix type="hueRotate" values="90"/></filter><g filter="url(#f)"><rect x="10" y="10" width="40" height="40" fill="#e0a03a"/><circle cx="40" cy="50" r="20" fill="teal"/></g><circle cx="75" cy="75" r="20" fill="#d8573a" filter="url(#h)"/>`,
	"a switch":        `<switch><rect systemLanguage="xx" width="90" height="90" fill="red"/><circle cx="50" cy="50" r="30" fill="teal"/></switch>`,
}

// Words are drawings whose words are set in Archivo, by their names; Chromium is given it, too.
func Words() map[string]string {
	out := map[string]string{}
	for name, inside := range spoken {
		out[name] = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 200" width="200" height="200" font-family="Archivo" text-rendering="geometricPrecision">` + inside + `</svg>`
	}
	return out
}

var spoken = map[string]string{
	"words": `<text x="10" y="40" font-size="30" fill="#17403c">Fennel Quay</text><text x="100" y="90" font-size="24" font-weight="700" text-anchor="middle" fill="#d8573a">Kite Day</text><text x="190" y="140" font-size="20" text-anchor="end">at noon</text>`,
	"runs": `<text x="10" y="50" font-size="24">Bring <tspan font-weight="700" fill="#d8573a">string</tspan> and <tspan font-size="36">wind</tspan><tspan x="10" dy="50">and
		a   kite</tspan></text><text transform="translate(20 180) rotate(-20)" font-size="22" letter-spacing="3">lanterns</text>`,
	"words in line": `<path id="a" fill="none" stroke="#e0a03a" d="M20 120C60 20 140 20 180 120"/><text font-size="22" fill="teal"><textPath href="#a" startOffset="50%" text-anchor="middle">along the water</textPath></text><text y="170" font-size="24" x="10 40 70 100">KITE</text>`,
	"shaded words":  `<linearGradient id="g"><stop stop-color="#d8573a"/><stop offset="1" stop-color="teal"/></linearGradient><text x="10" y="80" font-size="60" font-weight="700" fill="url(#g)">Noon</text><text x="10" y="160" font-size="60" font-weight="700" fill="none" stroke="#17403c" stroke-width="2">Dusk</text>`,
}
