package e2e
import ("testing";"github.com/chromedp/chromedp";"github.com/chromedp/chromedp/kb")
func (p *person) finds(words string) {
	p.do(chromedp.Focus(`[data-desk]`))
	p.key("Z", chromedp.ModifierShift)
	p.wait(`document.querySelector('[data-scene-finder] input') === document.activeElement`)
	p.do(chromedp.KeyEvent(words))
	p.wait(`document.querySelectorAll('[data-scene-finder] li').length === 1`)
	p.key(kb.Enter)
	p.settled()
}
func TestZZ(t *testing.T){
	p := sit(t, startStudio(t))
	p.open("/p/kite-day-reel"); p.settled()
	p.finds("flight 3")
	p.press(`[data-row] [data-name="Gull"], [data-row] [data-name="Red kite"]`)
	p.settled()
	p.pressWord("Scenes")
	p.do(chromedp.Sleep(300e6))
	p.shot("b")
	p.pressWord("What becomes what")
	p.settled()
	p.do(chromedp.Sleep(300e6))
	p.shot("c")
}
